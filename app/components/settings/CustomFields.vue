<script setup lang="ts">
// The firm's own fields as inputs: text, number, date, choice, yes or no.
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import DateInput from '~/base/DateInput.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'

const props = defineProps<{
  fields: { id: string; name: string; kind: string; choices: string[] }[]
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
    <Choice
      v-if="f.kind === 'choice' || f.kind === 'yes_no'"
      :model-value="values[f.id] ?? ''"
      :options="[
        { value: '', label: '–' },
        ...(f.kind === 'yes_no' ? ['yes', 'no'] : f.choices).map((c) => ({ value: c, label: c })),
      ]"
      @change="set(f.id, $event)" />
    <DateInput
      v-else-if="f.kind === 'date'"
      :model-value="values[f.id] ?? ''"
      @change="set(f.id, $event)" />
    <FigureInput
      v-else-if="f.kind === 'number'"
      :model-value="values[f.id] ?? ''"
      @change="set(f.id, $event)" />
    <TextInput
      v-else
      :model-value="values[f.id] ?? ''"
      @change="set(f.id, $event)"
  /></Field>
</template>
