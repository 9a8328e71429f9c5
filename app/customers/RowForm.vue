<script setup lang="ts">
// A small form for a site, a contact or a piece of equipment: a few named fields, kept in one act.
import { reactive } from 'vue'
import CustomFields from '~/components/settings/CustomFields.vue'
import { useAct } from '~/lib/useAct'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import DateInput from '~/base/DateInput.vue'
import Notice from '~/base/Notice.vue'

export interface RowField {
  key: string
  label: string
  kind?: 'date' | 'area' | 'choice'
  choices?: [string, string][]
}
const props = defineProps<{
  title: string
  fields: readonly RowField[]
  values: Record<string, string | null>
  custom?: { id: string; name: string; kind: string; choices: string[] }[]
  customValues?: Record<string, string>
  save: (values: Record<string, string | null>, custom: Record<string, string>) => Promise<void>
  remove?: () => Promise<void>
  copy?: { label: string; values: Record<string, string> }
}>()
const emit = defineEmits<{ close: [] }>()
const form = reactive<Record<string, string | null>>({ ...props.values })
const own = reactive({ values: { ...props.customValues } as Record<string, string> })
const { busy, problem, act } = useAct()
const keep = () =>
  act(async () => {
    await props.save({ ...form }, own.values)
    emit('close')
  })
const takeOut = () =>
  act(async () => {
    await props.remove!()
    emit('close')
  })
const text = (key: string) => form[key] ?? ''
</script>

<template>
  <Dialog
    :title="title"
    width="440"
    @close="emit('close')"
  >
    <form
      class="stack"
      @submit.prevent="keep"
    >
      <ActButton
        v-if="copy"
        @click="Object.assign(form, copy.values)"
      >
        {{ copy.label }}
      </ActButton>
      <Field
        v-for="f in fields"
        :key="f.key"
        :label="f.label"
        :error="problem?.at(f.key) ? problem.at(f.key) : ''"
      >
        <TextInput
          v-if="f.kind === 'area'"
          rows="2"
          :model-value="text(f.key)"
          @input="form[f.key] = $event"
        />
        <Choice
          v-else-if="f.kind === 'choice'"
          :model-value="text(f.key)"
          :options="(f.choices ?? []).map(([k, n]) => ({ value: k, label: n }))"
          @change="form[f.key] = $event || null"
        />
        <DateInput
          v-else-if="f.kind === 'date'"
          :model-value="text(f.key)"
          @change="form[f.key] = $event"
        />
        <TextInput
          v-else
          :type="f.kind ?? 'text'"
          :model-value="text(f.key)"
          @input="form[f.key] = $event"
        />
      </Field>
      <CustomFields
        v-if="custom?.length"
        v-model="own.values"
        :fields="custom"
      />
      <Notice :of="problem" />
      <div class="row">
        <ActButton
          primary
          submit
          class="grow"
          :disabled="busy"
        >
          Keep</ActButton
        ><ActButton
          v-if="remove"
          :disabled="busy"
          @click="takeOut"
        >
          Take out
        </ActButton>
      </div>
    </form>
  </Dialog>
</template>
