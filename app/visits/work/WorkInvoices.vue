<script setup lang="ts">
// What was billed for a work order, and what of it is open.
import ActButton from '~/base/ActButton.vue'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import { INVOICE_STATES } from '~/invoices/words'
import { useSession } from '~/stores/session'
import { isZero, type Work } from './useWorkOrder'

type Invoice = Work['invoices'][number]
defineProps<{ invoices: Invoice[]; bills: boolean }>()
const emit = defineEmits<{ pay: [invoice: Invoice] }>()
const session = useSession()
const COLUMNS: readonly Column<Invoice>[] = [
  { key: 'invoice', label: 'Invoice' },
  { key: 'issued', label: 'Issued', text: (i) => session.day(i.issueOn) },
  { key: 'due', label: 'Due', text: (i) => session.day(i.dueOn) },
  { key: 'total', label: 'Total', figures: true, text: (i) => session.money(i.total) },
  {
    key: 'open',
    label: 'Open',
    figures: true,
    tone: (i) => ({ soon: !isZero(i.open) }),
    text: (i) => session.money(i.open),
  },
  { key: 'state', label: 'State', text: (i) => INVOICE_STATES[i.state] },
  { key: 'act', right: true },
]
</script>

<template>
  <DataTable
    v-if="invoices.length"
    :rows="invoices"
    :row-key="(i) => i.id"
    :columns="COLUMNS"
  >
    <template #invoice="{ row: i }">
      <NuxtLink
        class="num"
        :to="`/invoices/${i.id}`"
        >{{ i.number }}</NuxtLink
      >
    </template>
    <template #act="{ row: i }">
      <ActButton
        v-if="bills && !isZero(i.open)"
        @click="emit('pay', i)"
      >
        Take payment…
      </ActButton>
    </template>
  </DataTable>
</template>
