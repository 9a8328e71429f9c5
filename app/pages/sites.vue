<script setup lang="ts">
// Every site, by its address: callers say where they are before they say whose customer they are.
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useFilter } from '~/lib/useFilter'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import Choice from '~/base/Choice.vue'

definePageMeta({ layout: 'office' })
const territory = useFilter('territory')
const { data: setUp } = useAnswer('setUp', undefined, SHOWS.setUp)
const load = (q: string, after?: string) =>
  call('sites', { query: { q, after, territory: territory.value || undefined } })
</script>

<template>
  <LedgerList
    title="Sites"
    filter="Address, town, customer"
    :load="load"
    :watch-key="territory"
    :empty="
      territory ? 'No site lies there.' : 'There is no site yet. A customer’s first call makes one.'
    "
    picks
    :columns="[
      {
        key: 'address',
        label: 'Address',
        file: (item) => [item.line1, item.town, item.postcode].filter(Boolean).join(', '),
      },
      { key: 'site', label: 'Site', text: (item) => item.name },
      { key: 'customer', label: 'Customer', text: (item) => item.customer },
      {
        key: 'territory',
        label: 'Territory',
        tone: (item) => ({ soon: !item.territory }),
        text: (item) => item.territory || 'in none',
      },
      { key: 'equipment', label: 'Equipment', figures: true, text: (item) => item.equipment },
      { key: 'access', label: 'Access', text: (item) => item.accessNote },
    ]"
    @pick="(item) => navigateTo(`/customers/${item.customerId}`)"
  >
    <template #acts>
      <Choice
        v-model="territory"
        aria-label="Territory"
        style="width: 180px"
        :options="[
          { value: '', label: 'every territory' },
          ...(setUp?.territories ?? []).map((t) => ({ value: t.name, label: t.name })),
        ]"
      />
      <a
        class="btn"
        href="/api/v1/export/sites.csv"
        >CSV</a
      >
    </template>

    <template #address="{ row: item }"
      ><NuxtLink :to="`/customers/${item.customerId}`">{{ item.line1 || 'no address' }}</NuxtLink
      ><br /><span class="small quiet">{{ item.town }} {{ item.postcode }}</span></template
    >
  </LedgerList>
</template>
