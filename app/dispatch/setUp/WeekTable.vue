<script setup lang="ts">
// The hours of a week, day by day, with how many visits each half takes.
import Check from '~/base/Check.vue'
import CountInput from '~/base/CountInput.vue'
import DataTable from '~/base/DataTable.vue'
import TimeInput from '~/base/TimeInput.vue'
import { DAYS } from './useSetUp'
import type { DayForm } from './weekForm'

const days = defineModel<DayForm[]>({ required: true })
const MOST = 20
</script>

<template>
  <DataTable
    :rows="days"
    :row-key="(_, i) => i"
    :columns="[
      { key: 'day', label: 'Day' },
      { key: 'from', label: 'From' },
      { key: 'to', label: 'To' },
      { key: 'morning', label: 'Morning' },
      { key: 'afternoon', label: 'Afternoon' },
      { key: 'break', label: 'Break', look: 'nowrap' },
    ]"
  >
    <template #day="{ row: d, index: i }">
      <Check v-model="d.on"> {{ DAYS[i] }}</Check>
    </template>
    <template #from="{ row: d, index: i }">
      <TimeInput
        v-model="d.from"
        :disabled="!d.on"
        :aria-label="`${DAYS[i]} from`"
      />
    </template>
    <template #to="{ row: d, index: i }">
      <TimeInput
        v-model="d.to"
        :disabled="!d.on"
        :aria-label="`${DAYS[i]} to`"
      />
    </template>
    <template #morning="{ row: d, index: i }">
      <CountInput
        v-model="d.morning"
        :disabled="!d.on"
        :aria-label="`${DAYS[i]}, visits in the morning`"
        :min="0"
        :max="MOST"
      />
    </template>
    <template #afternoon="{ row: d, index: i }">
      <CountInput
        v-model="d.afternoon"
        :disabled="!d.on"
        :aria-label="`${DAYS[i]}, visits in the afternoon`"
        :min="0"
        :max="MOST"
      />
    </template>
    <template #break="{ row: d, index: i }">
      <TimeInput
        v-model="d.breakFrom"
        :disabled="!d.on"
        :aria-label="`${DAYS[i]}, break from`"
      />
      {{ ' ' }}
      <TimeInput
        v-model="d.breakTo"
        :disabled="!d.on"
        :aria-label="`${DAYS[i]}, break to`"
      />
    </template>
  </DataTable>
</template>

<style scoped>
td .el-input-number {
  width: 76px;
}
</style>
