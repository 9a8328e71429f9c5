<script setup lang="ts">
// The firm's own fields of something, filled where they stand: each is kept by itself.
import InPlace from '~/base/InPlace.vue'
import type { FieldKind, Option } from '~/base/fields'
import { call } from '~/lib/api'

interface Filled {
  id: string
  name: string
  kind: string
  choices: string[]
  value: string
}
const props = defineProps<{
  fields: readonly Filled[]
  /** the work order or invoice that they are of */
  subjectId: string
  /** does an act of the page; says whether it was done */
  act: (work: () => Promise<unknown>, whenBusy: 'aside') => Promise<unknown>
}>()
const emit = defineEmits<{ filled: [] }>()
const KINDS: Readonly<Record<string, FieldKind>> = { date: 'date', number: 'figures' }
const YES_NO = ['yes', 'no']
const optionsOf = ({ kind, choices }: Filled): Option[] | undefined =>
  kind === 'choice' || kind === 'yes_no'
    ? [
        { value: '', label: '–' },
        ...(kind === 'yes_no' ? YES_NO : choices).map((c) => ({ value: c, label: c })),
      ]
    : undefined
const fill = (fieldId: string, value: string) =>
  props.act(async () => {
    await call('fillField', { body: { fieldId, subjectId: props.subjectId, value } })
    emit('filled')
    return true
  }, 'aside')
</script>

<template>
  <InPlace
    v-for="f in fields"
    :key="f.id"
    :label="f.name"
    :value="f.value"
    :kind="KINDS[f.kind]"
    :options="optionsOf(f)"
    :keep="(value) => fill(f.id, value)"
  />
</template>
