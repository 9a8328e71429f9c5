<script setup lang="ts">
// What comes next for a customer, and when somebody is to be expected.
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'
import type { Customer } from './rowForms'

defineProps<{ customer: Customer }>()
const session = useSession()
type Coming = Customer['coming'][number]
/** Of today as the day runs, the same as on the board; else as it is planned. */
function whenOf({ state, startAt, arriveAt }: Coming): string {
  if (state === 'on_site' || state === 'paused') return 'there now'
  if (arriveAt)
    return `${state === 'driving' ? 'on the way, ' : ''}expected ${session.time(arriveAt)}`
  return startAt ? session.dayTime(startAt) : 'no time yet'
}
</script>

<template>
  <template v-if="customer.coming.length">
    <h2>Comes next</h2>
    <DataTable
      :rows="customer.coming"
      :row-key="(v) => v.id"
      :columns="[
        { key: 'number' },
        { key: 'who', text: (v) => v.technician || 'nobody yet' },
        { key: 'when', text: whenOf },
        { key: 'promise', look: 'quiet', text: (v) => v.promise && `promised ${v.promise}` },
      ]"
    >
      <template #number="{ row: v }">
        <NuxtLink
          :to="`/work/${v.workOrderId}`"
          class="num"
          >{{ v.number }}</NuxtLink
        >
        {{ v.title }}
      </template>
    </DataTable>
  </template>
</template>
