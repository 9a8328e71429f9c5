<script setup lang="ts">
// What customers are told by itself, and in which words.
import { watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import Check from '~/base/Check.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { useSetUpForm, type SetUp } from './useSetUp'

const props = defineProps<{ messages: SetUp['messages']; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const MESSAGES = [
  ['confirmation', 'A confirmation when a visit is booked with its time'],
  ['eve', 'A word the day before, from 16:00 on'],
  ['onWay', 'A word when the technician sets off'],
] as const
const WORDS = [
  ['confirmation', 'Confirmation'],
  ['eve', 'The day before'],
  ['onWay', 'On the way'],
  ['late', 'Running late'],
  ['moved', 'Another time'],
  ['later', 'No time yet'],
  ['off', 'Cancelled'],
] as const
const asKept = () => ({ ...props.messages, words: { ...props.messages.words } })
const { form, keep } = useSetUpForm(
  asKept(),
  (now) => emit('kept', now),
  () => ({}),
)
watch(
  () => props.messages,
  () => form.follow(asKept()),
)
const save = () =>
  keep(() => call('keepVisitMessages', { body: { ...form.values, shown: asKept() } }))
</script>

<template>
  <Form
    :of="form"
    class="sheet box"
    @submit="save"
  >
    <Check
      v-for="[key, label] in MESSAGES"
      :key="key"
      v-model="form.values[key]"
      class="left"
      :disabled="!owns"
    >
      {{ label }}</Check
    >
    <p class="quiet small">
      By text to those who agreed to texts, by mail to the others unless they want none; whoever can
      get neither is shown, to be rung.
    </p>
    <details>
      <summary>The words</summary>
      <div class="two stacks">
        <Field
          v-for="[key, label] in WORDS"
          :key="key"
          :name="`words.${key}`"
          :label="label"
        >
          <TextInput
            v-model="form.values.words[key]"
            rows="3"
            :disabled="!owns"
          />
        </Field>
      </div>
      <p class="quiet small">
        Filled in: {when} {day} {window} {before} {time} {who} {title} {place} {name} {phone}
        {company}
      </p>
    </details>
    <Notice />
    <div
      v-if="owns"
      class="row"
    >
      <ActButton
        primary
        submit
        :disabled="!form.changed"
      >
        Keep these messages
      </ActButton>
    </div>
  </Form>
</template>
