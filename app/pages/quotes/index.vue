<script setup lang="ts">
// Quotes: what was offered, the latest first, each with why it waits.
import { ref } from 'vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const state = ref<'' | 'open' | 'draft' | 'sent' | 'expired' | 'accepted' | 'declined'>('open')
const load = (q: string, after?: string) =>
  call('quotes', { query: { q, after, state: state.value || undefined } })
const STATES = [
  ['open', 'Waiting'],
  ['draft', 'Drafts'],
  ['sent', 'Sent'],
  ['expired', 'Expired'],
  ['accepted', 'Accepted'],
  ['declined', 'Declined'],
  ['', 'All'],
] as const
</script>

<template>
  <LedgerList
    title="Quotes"
    filter="Number, words or customer"
    :load="load"
    :watch-key="state"
    empty="No quote waits. One begins at a call, a customer, or the work order of a visit to quote."
  >
    <template #acts
      ><button
        v-for="[k, name] in STATES"
        :key="k"
        class="btn"
        :class="{ on: state === k }"
        :aria-pressed="state === k"
        @click="state = k"
      >
        {{ name }}
      </button></template
    >
    <template #head
      ><tr>
        <th>Quote</th>
        <th>Customer</th>
        <th>Why it is here</th>
        <th>Who has it</th>
        <th>Held until</th>
        <th class="right">Total</th>
        <th>State</th>
      </tr></template
    >
    <template #default="{ item }"
      ><tr
        class="pick"
        @click="navigateTo(`/quotes/${item.id}`)"
      >
        <td>
          <NuxtLink
            :to="`/quotes/${item.id}`"
            class="num"
            >{{ item.number }}</NuxtLink
          >
          {{ item.title }}
        </td>
        <td>{{ item.customer }}</td>
        <td :class="{ late: item.late }">{{ item.waiting }}</td>
        <td>{{ item.owner }}</td>
        <td>{{ session.day(item.expiresOn) }}</td>
        <td class="right num">{{ session.money(item.total) }}</td>
        <td>{{ item.state }}</td>
      </tr></template
    >
  </LedgerList>
</template>
