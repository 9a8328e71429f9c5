<script setup lang="ts">
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const load = (q: string, after?: string) => call('customers', { query: { q, after } })
</script>

<template>
  <LedgerList title="Customers" filter="Name, town, number" :load="load" empty="There is no customer yet. The first call makes one.">
    <template #head><tr><th>Customer</th><th>Telephone</th><th>Mail</th><th>Town</th><th class="right">Sites</th><th class="right">Owes</th></tr></template>
    <template #default="{ item }"><tr class="pick" @click="navigateTo(`/customers/${item.id}`)"><td><NuxtLink :to="`/customers/${item.id}`">{{ item.name }}</NuxtLink> <span v-if="item.tag" class="chip">{{ item.tag }}</span></td><td class="num">{{ item.phone }}</td><td>{{ item.email }}</td><td>{{ item.town }}</td><td class="right num">{{ item.sites }}</td><td class="right num" :class="{ late: item.late }">{{ Number(item.owed.amount) ? session.money(item.owed) : '–' }}<template v-if="item.late"><br><span class="small">{{ item.late }} days late</span></template></td></tr></template>
  </LedgerList>
</template>
