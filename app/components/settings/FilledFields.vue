<script setup lang="ts">
// The firm's own fields of something, filled where they stand: each is kept by itself.
import InPlace from '~/base/InPlace.vue'
import { call } from '~/lib/api'
import { controlOf, type OwnField } from './ownFields'

const props = defineProps<{
  fields: readonly (OwnField & { value: string })[]
  /** the work order or invoice that they are of */
  subjectId: string
  /** does an act of the page; says whether it was done */
  act: (work: () => Promise<unknown>, whenBusy: 'aside') => Promise<unknown>
}>()
const emit = defineEmits<{ filled: [] }>()
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
    v-bind="controlOf(f)"
    :keep="(value) => fill(f.id, value)"
  />
</template>
