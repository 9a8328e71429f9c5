<script setup lang="ts">
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const load = (q: string, after?: string) =>
  call('workOrders', { query: { q, after, state: 'on_site,paused' } })
</script>

<template>
  <LedgerList
    title="On site"
    hint="Where work goes on right now."
    filter="Filter"
    :load="load"
    empty="Nobody is on site at the moment."
  >
    <template #head
      ><tr>
        <th>Work order</th>
        <th>Customer</th>
        <th>Technician</th>
        <th>State</th>
        <th class="right">Since</th>
      </tr></template
    >
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
        <td>
          <span
            class="chip"
            :class="item.state === 'on_site' ? 'good' : 'soon'"
            >{{ session.state(item.state) }}</span
          >
        </td>
        <td class="right num">{{ session.time(item.startedAt) }}</td>
      </tr>
    </template>
  </LedgerList>
</template>
