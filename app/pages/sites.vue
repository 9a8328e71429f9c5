<script setup lang="ts">
// Every site, by its address: callers say where they are before they say whose customer they are.
import { ref } from 'vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'

definePageMeta({ layout: 'office' })
const territory = ref('')
const { data: setUp } = useLoad(() => call('setUp'), 0, SHOWS.setUp)
const load = (q: string, after?: string) =>
  call('sites', { query: { q, after, territory: territory.value || undefined } })
</script>

<template>
  <LedgerList
    title="Sites"
    filter="Address, town, customer"
    :load="load"
    :watch-key="territory"
    empty="There is no site yet. A customer’s first call makes one."
  >
    <template #acts>
      <select
        v-model="territory"
        class="plain"
        aria-label="Territory"
        style="width: 180px"
      >
        <option value="">every territory</option>
        <option
          v-for="t in setUp?.territories ?? []"
          :key="t.id"
        >
          {{ t.name }}
        </option>
      </select>
      <a
        class="btn"
        href="/api/v1/export/sites.csv"
        >CSV</a
      >
    </template>
    <template #head
      ><tr>
        <th>Address</th>
        <th>Site</th>
        <th>Customer</th>
        <th>Territory</th>
        <th class="right">Equipment</th>
        <th>Access</th>
      </tr></template
    >
    <template #default="{ item }">
      <tr
        class="pick"
        @click="navigateTo(`/customers/${item.customerId}`)"
      >
        <td>
          <NuxtLink :to="`/customers/${item.customerId}`">{{
            item.line1 || 'no address'
          }}</NuxtLink><br /><span class="small quiet">{{ item.town }} {{ item.postcode }}</span>
        </td>
        <td>{{ item.name }}</td>
        <td>{{ item.customer }}</td>
        <td :class="{ soon: !item.territory }">{{ item.territory || 'in none' }}</td>
        <td class="right num">{{ item.equipment }}</td>
        <td>{{ item.accessNote }}</td>
      </tr>
    </template>
  </LedgerList>
</template>
