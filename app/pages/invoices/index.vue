<script setup lang="ts">
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useFilter } from '~/lib/useFilter'
import { useSession } from '~/stores/session'
import { INVOICE_STATES } from '~/invoices/words'
import PressOne from '~/base/PressOne.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const state = useFilter<'' | 'open' | 'overdue' | 'paid' | 'unsent'>('state')
const load = (q: string, after?: string) =>
  call('invoices', { query: { q, after, state: state.value || undefined } })
</script>

<template>
  <LedgerList
    title="Invoices"
    filter="Number or customer"
    :load="load"
    :watch-key="state"
    :empty="state ? 'There is none of these.' : 'No invoice yet.'"
    picks
    :columns="[
      { key: 'invoice', label: 'Invoice', file: (item) => item.number },
      { key: 'customer', label: 'Customer', text: (item) => item.customer },
      { key: 'workOrder', label: 'Work order', look: 'quiet num', text: (item) => item.workOrder },
      {
        key: 'issued',
        label: 'Issued',
        text: (item) => session.day(item.issueOn),
        file: (item) => item.issueOn,
      },
      {
        key: 'due',
        label: 'Due',
        tone: (item) => ({ late: item.late }),
        file: (item) => item.dueOn,
      },
      {
        key: 'total',
        label: 'Total',
        figures: true,
        text: (item) => session.money(item.total, false),
        file: (item) => item.total.amount,
      },
      {
        key: 'open',
        label: 'Open',
        figures: true,
        text: (item) => (Number(item.open.amount) ? session.money(item.open, false) : '–'),
        file: (item) => item.open.amount,
      },
      { key: 'state', label: 'State', text: (item) => INVOICE_STATES[item.state] },
    ]"
    @pick="(item) => navigateTo(`/invoices/${item.id}`)"
  >
    <template #acts
      ><PressOne
        v-model="state"
        :options="
          [
            ['', 'All'],
            ['open', 'Open'],
            ['overdue', 'Overdue'],
            ['paid', 'Paid'],
            ['unsent', 'Not sent'],
          ] as const
        "
      />
      <template v-if="session.may('figures.export')"
        ><a
          class="btn plain"
          href="/api/v1/export/invoices.csv"
          >All as CSV</a
        ><a
          class="btn plain"
          href="/api/v1/export/payments.csv"
          >Payments as CSV</a
        ></template
      ><a
        v-if="session.may('ledger.see')"
        class="btn plain"
        href="/api/v1/export/journal.ledger"
        >Journal</a
      ></template
    >

    <template #invoice="{ row: item }"
      ><NuxtLink
        :to="`/invoices/${item.id}`"
        class="num"
        >{{ item.number }}</NuxtLink
      ></template
    >

    <template #due="{ row: item }"
      >{{ session.day(item.dueOn)
      }}<template v-if="item.late"> · {{ item.late }} d late</template></template
    >
  </LedgerList>
</template>
