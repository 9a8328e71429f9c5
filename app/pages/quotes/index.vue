<script setup lang="ts">
// Quotes: what was offered, the latest first, each with why it waits.
import LedgerList from '~/components/base/LedgerList.vue'
import type { QuoteState } from '~~/core/quotes/quoteLifecycle'
import { call } from '~/lib/api'
import { useFilter } from '~/lib/useFilter'
import { QUOTE_FILTERS } from '~/quotes/words'
import { useSession } from '~/stores/session'
import PressOne from '~/base/PressOne.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
type Filter = QuoteState | 'open' | ''
const state = useFilter<Filter>('state', 'open')
const load = (q: string, after?: string) =>
  call('quotes', { query: { q, after, state: state.value || undefined } })
const FILTERS = [...Object.entries(QUOTE_FILTERS), ['', 'All']] as [Filter, string][]
</script>

<template>
  <LedgerList
    title="Quotes"
    filter="Number, words or customer"
    :load="load"
    :watch-key="state"
    empty="No quote waits. One begins at a call, a customer, or the work order of a visit to quote."
    picks
    :columns="[
      { key: 'quote', label: 'Quote', file: (item) => `${item.number} ${item.title}` },
      { key: 'customer', label: 'Customer', text: (item) => item.customer },
      {
        key: 'whyItIs',
        label: 'Why it is here',
        tone: (item) => ({ late: item.late }),
        text: (item) => item.waiting,
      },
      { key: 'whoHasIt', label: 'Who has it', text: (item) => item.owner },
      {
        key: 'heldUntil',
        label: 'Held until',
        text: (item) => session.day(item.expiresOn),
        file: (item) => item.expiresOn,
      },
      {
        key: 'total',
        label: 'Total',
        figures: true,
        text: (item) => session.money(item.total),
        file: (item) => item.total.amount,
      },
      { key: 'state', label: 'State', text: (item) => item.state },
    ]"
    @pick="(item) => navigateTo(`/quotes/${item.id}`)"
  >
    <template #acts
      ><PressOne
        v-model="state"
        :options="FILTERS"
    /></template>

    <template #quote="{ row: item }"
      ><NuxtLink
        :to="`/quotes/${item.id}`"
        class="num"
        >{{ item.number }}</NuxtLink
      >
      {{ item.title }}</template
    >
  </LedgerList>
</template>
