<script setup lang="ts">
// What is asked of every caller: added, no longer asked, asked again.
import { QUESTION_KINDS } from '~~/shared/settings'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import DataTable from '~/base/DataTable.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import { choicesIn, kindOptions, sayChoices, type Question } from './setUp'

const props = defineProps<{ questions: Question[]; may: boolean }>()
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
      const position = props.questions.length
      const body = { id: newId(), text, kind, choices: choicesIn(choices), position }
      await call('keepQuestion', { body })
      emit('kept')
    },
    () => ({ text: '', choices: '' }),
  )
const retire = (q: Question) =>
  form.act(async () => {
    const position = props.questions.indexOf(q)
    await call('keepQuestion', { body: { ...q, retired: !q.retired, position } })
    emit('kept')
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
      {{ q.text }}<br /><span class="small quiet">{{ sayChoices(q.kind, q.choices) }}</span>
    </template>
    <template #act="{ row: q }">
      <ActButton
        :disabled="form.busy"
        @click="retire(q)"
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
