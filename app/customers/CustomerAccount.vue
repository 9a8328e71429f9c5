<script setup lang="ts">
// The four columns of a customer, summed, and what they owe.
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'
import CreditUse from './CreditUse.vue'
import type { Customer } from './rowForms'

defineProps<{ customer: Customer }>()
const session = useSession()
const ACCOUNT = [
  ['promised', 'Promised'],
  ['done', 'Done'],
  ['billed', 'Billed'],
  ['paid', 'Paid'],
  ['owed', 'Owes, with tax'],
] as const
</script>

<template>
  <DataTable
    class="account"
    label="Their account"
    :rows="[customer]"
    :row-key="(c) => c.id"
    :columns="ACCOUNT.map(([key, label]) => ({ key, label, figures: true }))"
  >
    <template
      v-for="[key] in ACCOUNT"
      :key="key"
      #[key]="{ row }"
    >
      <b class="double">{{ session.money(row[key]) }}</b>
      <template v-if="key === 'owed' && Number(row.credits.amount)">
        <br /><span class="small quiet"
          >a credit of {{ session.money(row.credits) }} taken off</span
        >
      </template>
    </template>
  </DataTable>
  <CreditUse v-if="Number(customer.credits.amount)" />
</template>

<style scoped>
.account {
  border: 1px solid var(--rule-2);
}
.account .small {
  font: 0.75rem var(--text);
}
</style>
