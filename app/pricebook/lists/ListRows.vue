<script setup lang="ts">
// What a list would do, row by row: left out with the reason, new, changed, no longer on it.
import type { Answer } from '~~/shared/api'
import DataTable from '~/base/DataTable.vue'

defineProps<{ seen: Answer<'lookAtPrices'> }>()
</script>

<template>
  <details
    v-if="seen.wrong.length"
    open
  >
    <summary>
      <b>{{ seen.counts.wrong }}</b> left out
    </summary>
    <DataTable
      :rows="seen.wrong"
      :row-key="(r) => r.row"
      :columns="[
        { key: 'row', label: 'Row', figures: true, text: (r) => r.row },
        { key: 'code', label: 'Code', look: 'num', text: (r) => r.code },
        { key: 'name', label: 'Name', text: (r) => r.name },
        { key: 'whatIsWrong', label: 'What is wrong', look: 'late', text: (r) => r.what },
      ]"
    >
    </DataTable>
  </details>
  <details v-if="seen.new.length">
    <summary>
      <b>{{ seen.counts.new }}</b> new
    </summary>
    <DataTable
      :rows="seen.new"
      :row-key="(r) => r.row"
      :columns="[
        { key: 'c1', figures: true, text: (r) => r.row },
        { key: 'c2', look: 'num', text: (r) => r.code },
        { key: 'c3', text: (r) => r.name },
      ]"
    >
    </DataTable>
  </details>
  <details v-if="seen.changed.length">
    <summary>
      <b>{{ seen.counts.changed }}</b> changed
    </summary>
    <DataTable
      :rows="seen.changed"
      :row-key="(r) => r.row"
      :columns="[
        { key: 'c1', figures: true, text: (r) => r.row },
        { key: 'c2', look: 'num', text: (r) => r.code },
        { key: 'c3', text: (r) => r.name },
        { key: 'c4', look: 'quiet', text: (r) => r.what },
      ]"
    >
    </DataTable>
  </details>
  <details v-if="seen.vanished.length">
    <summary>
      <b>{{ seen.counts.vanished }}</b> no longer on the list
    </summary>
    <DataTable
      :rows="seen.vanished"
      :row-key="(v) => v.id"
      :columns="[
        { key: 'c1', look: 'num', text: (v) => v.code },
        { key: 'c2', text: (v) => v.name },
      ]"
    >
    </DataTable>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  padding: 4px 0;
}
details table {
  max-width: 1000px;
}
</style>
