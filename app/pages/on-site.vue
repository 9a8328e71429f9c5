<script setup lang="ts">
import EverybodyNow from '~/dispatch/now/EverybodyNow.vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const load = (q: string, after?: string) =>
  call('workOrders', { query: { q, after, onSite: true } })
</script>

<template>
  <div>
    <LedgerList
      title="On site"
      hint="Where work goes on right now."
      filter="Filter"
      :load="load"
      empty="Nobody is on site at the moment."
      picks
      :columns="[
        { key: 'workOrder', label: 'Work order', file: (item) => `${item.number} ${item.title}` },
        { key: 'customer', label: 'Customer', text: (item) => `${item.customer}, ${item.town}` },
        { key: 'technician', label: 'Technician', text: (item) => item.technician },
        { key: 'state', label: 'State', file: (item) => session.state(item.state) },
        {
          key: 'since',
          label: 'Since',
          figures: true,
          text: (item) => session.time(item.startedAt),
        },
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

      <template #state="{ row: item }"
        ><span
          class="chip"
          :class="item.state === 'on_site' ? 'good' : 'soon'"
          >{{ session.state(item.state) }}</span
        ></template
      >
    </LedgerList>
    <EverybodyNow
      v-if="session.may('dispatch.see')"
      class="page"
    />
  </div>
</template>
