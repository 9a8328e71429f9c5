<script setup lang="ts">
// What is asked of every caller: added, worded otherwise, no longer asked, asked again.
import { QUESTION_KINDS } from '~~/shared/settings'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import DataTable from '~/base/DataTable.vue'
import Form from '~/base/Form.vue'
import InPlace from '~/base/InPlace.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import { choicesIn, kindOptions, sayChoices, type Question } from './setUp'

defineProps<{ questions: Question[]; may: boolean }>()
const emit = defineEmits<{ kept: [] }>()
const form = useForm({
  text: '',
  kind: 'yes_no' as (typeof QUESTION_KINDS)[number],
  choices: '',
})
const add = () =>
  form.send(
    async () => {
      const { text, kind, choices } = form.values
      const body = { id: newId(), text, kind, choices: choicesIn(choices) }
      await call('keepQuestion', { body })
      emit('kept')
    },
    () => ({ text: '', choices: '' }),
  )
/** Otherwise than it stands there. */
const change = ({ id, ...shown }: Question, otherwise: Partial<Question>) =>
  form.act(async () => {
    await call('keepQuestion', { body: { ...shown, ...otherwise, id, shown } })
    emit('kept')
    return true
  })
</script>

<template>
  <h2 id="questions">Asked of every caller</h2>
  <DataTable
    :rows="questions"
    :row-key="(q) => q.id"
    :columns="[
      { key: 'what', tone: (q) => ({ quiet: q.retired }) },
      ...(may ? [{ key: 'act', right: true }] : []),
    ]"
  >
    <template #what="{ row: q }">
      <InPlace
        v-if="may"
        bare
        :label="`The question “${q.text}”`"
        :value="q.text"
        :keep="(text) => change(q, { text })"
      />
      <template v-else>{{ q.text }}</template><br /><span class="small quiet">{{
        sayChoices(q.kind, q.choices)
      }}</span>
    </template>
    <template #act="{ row: q }">
      <ActButton
        :disabled="form.busy"
        @click="change(q, { retired: !q.retired })"
      >
        {{ q.retired ? 'Ask again' : 'Do not ask' }}
      </ActButton>
    </template>
  </DataTable>
  <Form
    v-if="may"
    :of="form"
    @submit="add"
  >
    <div class="row wrapped">
      <TextInput
        v-model="form.values.text"
        class="grow"
        placeholder="A further question"
        aria-label="A further question"
      />
      <Choice
        v-model="form.values.kind"
        aria-label="How it is answered"
        style="width: 110px"
        :options="kindOptions(QUESTION_KINDS)"
      />
      <TextInput
        v-if="form.values.kind === 'choice'"
        v-model="form.values.choices"
        placeholder="choices, with commas"
        aria-label="Choices"
      />
      <ActButton
        primary
        submit
        :disabled="!form.values.text"
      >
        Add
      </ActButton>
    </div>
    <Notice :of="form.problem" />
  </Form>
</template>
