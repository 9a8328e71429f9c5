<script setup lang="ts">
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
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
  >
    <template #head
      ><tr>
        <th>Work order</th>
        <th>Customer</th>
        <th>Technician</th>
        <th>Why it is here</th>
        <th class="right">To bill, net</th>
        <th /></tr
    ></template>
    <template #default="{ item }">
      <tr
        class="pick"
        @click="navigateTo(`/work/${item.id}`)"
      >
        <td>
          <NuxtLink
            :to="`/work/${item.id}`"
            class="num"
            >{{ item.number }}</NuxtLink
          >
          {{ item.title }}
        </td>
        <td>{{ item.customer }}, {{ item.town }}</td>
        <td>{{ item.technician }}</td>
        <td :class="{ late: item.why.startsWith('Done') || item.why.includes('nothing') }">
          {{ item.why }}
        </td>
        <td class="right num strong">{{ session.money(item.toBill) }}</td>
        <td class="right">
          <NuxtLink
            class="btn"
            :to="{ path: `/work/${item.id}`, query: { bill: 1 } }"
            @click.stop
            >Bill…</NuxtLink
          >
        </td>
      </tr>
    </template>
  </LedgerList>
</template>
