<script setup lang="ts">
import { computed } from 'vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const bills = computed(() => session.may('invoices.make'))
const load = (q: string, after?: string) =>
  call('workOrders', { query: { q, after, state: 'to_bill', sort: 'created' } })
</script>

<template>
  <LedgerList
    title="To bill"
    hint="Done and not billed, the oldest first. Nothing leaves this list but by an invoice or a reason."
    filter="Filter"
    :load="load"
    empty="Everything that was done is billed."
    picks
    :columns="[
      { key: 'workOrder', label: 'Work order', file: (item) => `${item.number} ${item.title}` },
      { key: 'customer', label: 'Customer', text: (item) => `${item.customer}, ${item.town}` },
      { key: 'technician', label: 'Technician', text: (item) => item.technician },
      {
        key: 'whyItIs',
        label: 'Why it is here',
        tone: (item) => ({ late: item.why.startsWith('done') || /nothing|nobody/.test(item.why) }),
        text: (item) => item.why,
      },
      {
        key: 'toBillNet',
        label: 'To bill, net',
        figures: true,
        look: 'strong',
        text: (item) => session.money(item.toBill),
        file: (item) => item.toBill.amount,
      },
      { key: 'act', right: true },
    ]"
    @pick="(item) => navigateTo(`/work/${item.id}`)"
  >
    <template #workOrder="{ row: item }"
      ><NuxtLink
        :to="`/work/${item.id}`"
        class="num"
        >{{ item.number }}</NuxtLink
      >
      {{ item.title }}</template
    >

    <template #act="{ row: item }"
      ><NuxtLink
        v-if="bills"
        class="btn"
        :to="{ path: `/work/${item.id}`, query: { bill: 1 } }"
        @click.stop
        >Bill…</NuxtLink
      ></template
    >
  </LedgerList>
</template>
