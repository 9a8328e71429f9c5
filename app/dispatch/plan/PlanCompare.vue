<script setup lang="ts">
// The day as it stands beside the day as it is proposed.
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import DataTable from '~/base/DataTable.vue'
import type { ReadyPlan } from './usePlan'

const props = defineProps<{ plan: ReadyPlan }>()
const FACTS = [
  ['broken', 'Promises broken'],
  ['unserved', 'Without a slot'],
  ['overtimeSeconds', 'Time over'],
  ['drivingSeconds', 'Driving'],
] as const
type Fact = (typeof FACTS)[number][0]
const show = (key: Fact, n: number) =>
  key.endsWith('Seconds') ? `${hoursMinutes(n)} h` : String(n)
const change = (key: Fact) => props.plan.after[key] - props.plan.before[key]
function toneOf(key: Fact): 'good' | 'late' | 'quiet' {
  if (change(key) === 0) return 'quiet'
  return change(key) < 0 ? 'good' : 'late'
}
const sayChange = (key: Fact) =>
  change(key) === 0 ? 'same' : `${change(key) < 0 ? '−' : '+'}${show(key, Math.abs(change(key)))}`
</script>

<template>
  <DataTable
    class="compare"
    :rows="FACTS"
    :row-key="([k]) => k"
    :columns="[
      { key: 'c1', text: ([, name]) => name },
      { key: 'now', label: 'Now', figures: true, text: ([k]) => show(k, plan.before[k]) },
      { key: 'proposed', label: 'Proposed', figures: true, text: ([k]) => show(k, plan.after[k]) },
      {
        key: 'difference',
        label: 'Difference',
        figures: true,
        tone: ([k]) => toneOf(k),
        text: ([k]) => sayChange(k),
      },
    ]"
  />
</template>

<style scoped>
.compare {
  max-width: 620px;
}
</style>
