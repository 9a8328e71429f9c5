<script setup lang="ts">
// A customer's quotes, invoices and work, the latest first.
import DataTable from '~/base/DataTable.vue'
import { INVOICE_STATES } from '~/invoices/words'
import { useSession } from '~/stores/session'
import type { Customer } from './rowForms'

defineProps<{ customer: Customer }>()
const session = useSession()
const MOST_INVOICES = 12
</script>

<template>
  <template v-if="customer.quotes.length">
    <h2>Quotes</h2>
    <DataTable
      :rows="customer.quotes"
      :row-key="(q) => q.id"
      :columns="[
        { key: 'number' },
        { key: 'state', look: 'quiet', text: (q) => q.waiting || q.state },
        { key: 'total', figures: true, text: (q) => session.money(q.total) },
      ]"
    >
      <template #number="{ row: q }">
        <NuxtLink
          :to="`/quotes/${q.id}`"
          class="num"
          >{{ q.number }}</NuxtLink
        >
        {{ q.title }}
      </template>
    </DataTable>
  </template>
  <template v-if="customer.papers.length">
    <h2>Invoices</h2>
    <DataTable
      :rows="customer.papers.slice(0, MOST_INVOICES)"
      :row-key="(p) => p.id"
      :columns="[
        { key: 'number' },
        { key: 'on', look: 'quiet', text: (p) => session.day(p.on, 'withYear') },
        { key: 'state', text: (p) => INVOICE_STATES[p.state] },
        { key: 'total', figures: true, text: (p) => session.money(p.total, false) },
        {
          key: 'open',
          figures: true,
          tone: (p) => ({ late: Number(p.open.amount) }),
          text: (p) => (Number(p.open.amount) ? `${session.money(p.open, false)} open` : ''),
        },
      ]"
    >
      <template #number="{ row: p }">
        <NuxtLink
          :to="`/invoices/${p.id}`"
          class="num"
          >{{ p.number }}</NuxtLink
        >
      </template>
    </DataTable>
    <p v-if="customer.papers.length > MOST_INVOICES">
      <NuxtLink :to="{ path: '/invoices', query: { q: customer.name } }"
        >The others in the list of invoices</NuxtLink
      >
    </p>
  </template>
  <h2>Work</h2>
  <DataTable
    v-if="customer.work.length"
    label="Work"
    :rows="customer.work"
    :row-key="(w) => w.id"
    :columns="[
      { key: 'number' },
      { key: 'title', text: (w) => w.title },
      { key: 'on', look: 'quiet nowrap', text: (w) => session.day(w.on, 'withYear') },
      { key: 'state', text: (w) => session.state(w.state) },
      {
        key: 'toBill',
        figures: true,
        tone: (w) => ({ late: Number(w.toBill.amount) }),
        text: (w) => (Number(w.toBill.amount) ? `${session.money(w.toBill, false)} to bill` : ''),
      },
    ]"
  >
    <template #number="{ row: w }">
      <NuxtLink
        :to="`/work/${w.id}`"
        class="num"
        >{{ w.number }}</NuxtLink
      >
    </template>
  </DataTable>
  <p
    v-else
    class="empty"
  >
    No work yet.
  </p>
</template>
