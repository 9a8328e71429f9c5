<script setup lang="ts">
// What each customer owes, by how late it is.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import TableActs from '~/base/TableActs.vue'
import { useSession } from '~/stores/session'
import { BUCKETS } from './ageing'
import type { Unpaid } from './useOwing'

type Debtor = Unpaid['customers'][number]
const chosen = defineModel<string>('chosen', { required: true })
const props = defineProps<{ unpaid: Unpaid }>()
const session = useSession()
const COLUMNS: Column<Debtor>[] = [
  { key: 'customer', label: 'Customer', file: (c) => c.name },
  ...BUCKETS.map(([key, label]) => ({
    key,
    label,
    figures: true,
    text: (c: Debtor) => (Number(c[key].amount) ? session.money(c[key], false) : '–'),
    file: (c: Debtor) => c[key].amount,
  })),
  {
    key: 'owed',
    label: 'Owes',
    figures: true,
    look: 'strong',
    text: (c) => session.money(c.owed, false),
    file: (c) => c.owed.amount,
  },
]
const sums = computed(() => {
  const { totals } = props.unpaid
  const buckets = BUCKETS.map(([key]) => [key, session.money(totals[key], false)])
  return {
    customer: 'All',
    owed: session.money(totals.owed, false),
    ...Object.fromEntries(buckets),
  }
})
</script>

<template>
  <div>
    <DataTable
      :rows="unpaid.customers"
      :row-key="(c) => c.customerId"
      :tone="(c) => ({ chosen: c.customerId === chosen })"
      :columns="COLUMNS"
      :sums="sums"
      picks
      @pick="(c) => (chosen = c.customerId)"
    >
      <template #customer="{ row: c }">
        <ActButton
          quiet
          class="link"
          @click.stop="chosen = c.customerId"
        >
          {{ c.name }}
        </ActButton>
      </template>
    </DataTable>
    <TableActs
      name="Unpaid by customer"
      :columns="COLUMNS"
      :rows="() => unpaid.customers"
    />
  </div>
</template>

<style scoped>
.link {
  padding: 0;
  font-weight: 650;
  text-align: left;
}
</style>
