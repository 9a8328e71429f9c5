<script setup lang="ts">
// A form of one line: a text, and what is done with it. Emptied once it is done.
import type { PhraseListName } from '~~/core/settings/phrases'
import ActButton from './ActButton.vue'
import Field from './Field.vue'
import Form from './Form.vue'
import Notice from './Notice.vue'
import Phrases from './Phrases.vue'
import TextInput from './TextInput.vue'
import { useForm } from './useForm'

const props = defineProps<{
  /** what is asked; read out, and shown where `shown` says so */
  label: string
  shown?: boolean
  placeholder?: string
  /** what its act does, on its button */
  act: string
  send: (text: string) => Promise<unknown>
  type?: 'text' | 'email'
  maxlength?: number | string
  begins?: string
  primary?: boolean
  /** nothing is an answer, too */
  optional?: boolean
  /** names what it is about: what was typed and not sent survives */
  draft?: string
  /** what is proposed, where it is often the same */
  phrases?: PhraseListName | undefined
}>()
const form = useForm({ text: props.begins ?? '' }, { draft: props.draft })
const give = () =>
  form.send(
    () => props.send(form.values.text.trim()),
    () => ({ text: props.begins ?? '' }),
  )
</script>

<template>
  <Form
    :of="form"
    @submit="give"
  >
    <div class="row one-field">
      <Field
        v-if="shown"
        class="grow"
        :label="label"
      >
        <TextInput
          v-model="form.values.text"
          :type="type"
          :maxlength="maxlength"
          :placeholder="placeholder"
        />
      </Field>
      <TextInput
        v-else
        v-model="form.values.text"
        class="grow"
        :type="type"
        :maxlength="maxlength"
        :placeholder="placeholder ?? label"
        :aria-label="label"
      />
      <ActButton
        submit
        :primary="primary"
        :disabled="!optional && !form.values.text.trim()"
      >
        {{ act }}
      </ActButton>
    </div>
    <Phrases
      v-if="phrases"
      v-model="form.values.text"
      :of="phrases"
    />
    <Notice :of="form.problem" />
  </Form>
</template>

<style scoped>
.one-field {
  align-items: flex-end;
}
</style>
