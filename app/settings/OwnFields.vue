<script setup lang="ts">
// The firm's own fields: of customers, sites, work orders and invoices.
import { FIELD_KINDS, FIELD_SUBJECTS } from '~~/shared/settings'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import DataTable from '~/base/DataTable.vue'
import Form from '~/base/Form.vue'
import InPlace from '~/base/InPlace.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import { choicesIn, kindOptions, sayChoices, sayKind, type OwnField } from './setUp'

defineProps<{ fields: OwnField[]; may: boolean }>()
const emit = defineEmits<{ kept: [] }>()
const form = useForm({
  name: '',
  subject: 'customer' as (typeof FIELD_SUBJECTS)[number],
  kind: 'text' as (typeof FIELD_KINDS)[number],
  choices: '',
})
const add = () =>
  form.send(
    async () => {
      const { choices, ...rest } = form.values
      const body = { ...rest, id: newId(), choices: choicesIn(choices) }
      await call('keepField', { body })
      emit('kept')
    },
    () => ({ name: '', choices: '' }),
  )
/** Otherwise than it stands there. */
const change = ({ id, ...shown }: OwnField, otherwise: Partial<OwnField>) =>
  form.act(async () => {
    await call('keepField', { body: { ...shown, ...otherwise, id, shown } })
    emit('kept')
    return true
  })
</script>

<template>
  <h2 id="fields">Fields of our own</h2>
  <DataTable
    :rows="fields"
    :row-key="(f) => f.id"
    :columns="[
      { key: 'what', tone: (f) => ({ quiet: f.retired }) },
      ...(may ? [{ key: 'act', right: true }] : []),
    ]"
  >
    <template #what="{ row: f }">
      <InPlace
        v-if="may"
        bare
        :label="`The field “${f.name}”`"
        :value="f.name"
        :keep="(name) => change(f, { name })"
      />
      <template v-else>{{ f.name }}</template><br /><span class="small quiet"
        >of {{ sayKind(f.subject) }}s · {{ sayChoices(f.kind, f.choices) }}</span
      >
    </template>
    <template #act="{ row: f }">
      <ActButton
        :disabled="form.busy"
        @click="change(f, { retired: !f.retired })"
      >
        {{ f.retired ? 'Use again' : 'Retire' }}
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
        v-model="form.values.name"
        class="grow"
        placeholder="A further field"
        aria-label="A further field"
      />
      <Choice
        v-model="form.values.subject"
        aria-label="Where it belongs"
        style="width: 120px"
        :options="kindOptions(FIELD_SUBJECTS)"
      />
      <Choice
        v-model="form.values.kind"
        aria-label="What it holds"
        style="width: 100px"
        :options="kindOptions(FIELD_KINDS)"
      />
      <TextInput
        v-if="form.values.kind === 'choice'"
        v-model="form.values.choices"
        placeholder="choices, with commas"
        aria-label="Choices of the field"
      />
      <ActButton
        primary
        submit
        :disabled="!form.values.name"
      >
        Add
      </ActButton>
    </div>
    <Notice :of="form.problem" />
  </Form>
</template>
