<script setup lang="ts">
import { ref } from 'vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const state = ref<'' | 'open' | 'overdue' | 'paid'>('')
const load = (q: string, after?: string) =>
  call('invoices', { query: { q, after, state: state.value || undefined } })
</script>

<template>
  <LedgerList
    title="Invoices"
    filter="Number or customer"
    :load="load"
    :watch-key="state"
    empty="No invoice yet."
  >
    <template #acts
      ><button
        v-for="[k, name] in [
          ['', 'All'],
          ['open', 'Open'],
          ['overdue', 'Overdue'],
          ['paid', 'Paid'],
        ] as const"
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
        <th>Invoice</th>
        <th>Customer</th>
        <th>Work order</th>
        <th>Issued</th>
        <th>Due</th>
        <th class="right">Total</th>
        <th class="right">Open</th>
        <th>State</th>
      </tr></template
    >
    <template #default="{ item }"
      ><tr
        class="pick"
        @click="navigateTo(`/invoices/${item.id}`)"
      >
        <td>
          <NuxtLink
            :to="`/invoices/${item.id}`"
            class="num"
            >{{ item.number }}</NuxtLink
          >
        </td>
        <td>{{ item.customer }}</td>
        <td class="num quiet">{{ item.workOrder }}</td>
        <td>{{ session.day(item.issueOn) }}</td>
        <td :class="{ late: item.late }">
          {{ session.day(item.dueOn)
          }}<template v-if="item.late"> · {{ item.late }} d late</template>
        </td>
        <td class="right num">{{ session.money(item.total, false) }}</td>
        <td class="right num">
          {{ Number(item.open.amount) ? session.money(item.open, false) : '–' }}
        </td>
        <td>{{ item.state }}</td>
      </tr></template
    >
  </LedgerList>
</template>
