<script setup lang="ts">
// The firm's own fields as inputs of a form: kept with it.
import Control from '~/base/Control.vue'
import Field from '~/base/Field.vue'
import { controlOf, type OwnField } from './ownFields'

const props = defineProps<{
  fields: OwnField[]
  /** what they are called, together, in the form that they stand in */
  name?: string
}>()
const values = defineModel<Record<string, string>>({ required: true })
const set = (id: string, value: string) => {
  values.value = { ...values.value, [id]: value }
}
</script>

<template>
  <Field
    v-for="f in fields"
    :key="f.id"
    :name="props.name && `${props.name}.${f.id}`"
    :label="f.name"
  >
    <Control
      v-bind="controlOf(f)"
      :model-value="values[f.id] ?? ''"
      @change="set(f.id, $event)"
    />
  </Field>
</template>
