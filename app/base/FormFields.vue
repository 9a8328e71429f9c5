<script setup lang="ts">
// The fields of a form, drawn from a list of them: each bound to the form's value of its name.
import { computed } from 'vue'
import Choice from './Choice.vue'
import DateInput from './DateInput.vue'
import Field from './Field.vue'
import FigureInput from './FigureInput.vue'
import TextInput from './TextInput.vue'
import TimeInput from './TimeInput.vue'
import type { FormField, FormRows } from './fields'
import { formAround } from './useForm'

type Values = Record<string, string | null>
const props = defineProps<{ fields: FormRows }>()
const rows = computed(() => props.fields.map((row): readonly FormField[] => [row].flat()))
const form = formAround()!
const values = form.values as Values
const labelOf = (f: FormField, value: unknown) =>
  f.options?.find((option) => option.value === value)?.label ?? String(value)
</script>

<template>
  <div
    v-for="row in rows"
    :key="row[0]!.name"
    :class="{ row: row.length > 1 }"
  >
    <Field
      v-for="f in row"
      :key="f.name"
      :class="{ grow: row.length > 1 && !f.narrow }"
      :name="f.name"
      :label="f.label"
      :says="f.options && ((value) => labelOf(f, value))"
    >
      <Choice
        v-if="f.options"
        v-model="values[f.name]"
        :options="f.options"
      />
      <DateInput
        v-else-if="f.kind === 'date'"
        v-model="values[f.name]"
      />
      <TimeInput
        v-else-if="f.kind === 'time'"
        v-model="values[f.name]"
      />
      <FigureInput
        v-else-if="f.kind === 'figures'"
        v-model="values[f.name]"
        :placeholder="f.placeholder"
      />
      <TextInput
        v-else
        v-model="values[f.name]"
        :type="f.kind === 'email' ? 'email' : 'text'"
        :rows="f.kind === 'area' ? (f.rows ?? 2) : undefined"
        :placeholder="f.placeholder"
      />
    </Field>
  </div>
</template>
