<script setup lang="ts">
// The series of numbers that people say: each with the number that comes next.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import NumberSeriesForm from './NumberSeriesForm.vue'
import { SERIES_WORDS, type Series } from './setUp'

defineProps<{ may: boolean }>()
const { data, problem, refresh } = useAnswer('numbers', undefined, SHOWS.setUp)
const editing = ref<Series | null>(null)
</script>

<template>
  <h2 id="numbers">Numbers</h2>
  <template v-if="data">
    <Notice :of="problem" />
    <DataTable
      label="Numbers"
      :rows="data.items"
      :row-key="(s) => s.kind"
      :columns="[
        { key: 'kind', label: 'Of', text: (s) => SERIES_WORDS[s.kind] },
        { key: 'next', label: 'The next', look: 'num', text: (s) => s.example },
        ...(may ? [{ key: 'act', right: true }] : []),
      ]"
    >
      <template #act="{ row: series }">
        <ActButton
          :aria-label="`Change the numbers of ${SERIES_WORDS[series.kind].toLowerCase()}`"
          @click="editing = series"
          >Change</ActButton
        >
      </template>
    </DataTable>
    <NumberSeriesForm
      v-if="editing"
      :of="editing"
      @kept="data = $event"
      @close="editing = null"
    />
  </template>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>
