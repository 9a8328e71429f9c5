<script setup lang="ts" generic="Means extends string">
// What the columns of somebody's file mean: each beside its first rows, and no meaning twice.
import Choice from '~/base/Choice.vue'
import DataTable from '~/base/DataTable.vue'

const columns = defineModel<(Means | null)[]>({ required: true })
const props = defineProps<{
  head: readonly string[]
  rows: readonly string[][]
  fields: readonly Means[]
  label: (field: Means) => string
}>()
const optionsFor = (column: number) => [
  { value: null, label: 'leave out' },
  ...props.fields.map((field) => ({
    value: field,
    label: props.label(field),
    disabled: columns.value.includes(field) && columns.value[column] !== field,
  })),
]
const rowAt = (row: number) => (_: string, column: number) => props.rows[row]?.[column]
</script>

<template>
  <div class="wide">
    <DataTable
      :rows="head"
      :row-key="(_, i) => i"
      :columns="[
        { key: 'column', label: 'Column', text: (h) => h },
        { key: 'means', label: 'Means' },
        { key: 'firstRow', label: 'First row', look: 'clip', text: rowAt(0) },
        { key: 'secondRow', label: 'Second row', look: 'clip', text: rowAt(1) },
      ]"
    >
      <template #means="{ row: name, index }"
        ><Choice
          v-model="columns[index]"
          :aria-label="`Meaning of ${name}`"
          :options="optionsFor(index)"
      /></template>
    </DataTable>
  </div>
</template>
