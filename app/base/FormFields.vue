<script setup lang="ts">
// The fields of a form, drawn from a list of them: each bound to the form's value of its name.
import { computed } from 'vue'
import Control from './Control.vue'
import Field from './Field.vue'
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
      <Control
        v-model="values[f.name]"
        :kind="f.kind"
        :options="f.options"
        :rows="f.rows"
        :placeholder="f.placeholder"
      />
    </Field>
  </div>
</template>
