<script setup lang="ts">
import { ref } from 'vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const show = (amount: string | null) => (amount === null ? '' : session.money({ amount, currency: session.me!.company.currency }, false))
const kind = ref<'' | 'task' | 'part' | 'labour' | 'charge'>('')
const load = (q: string, after?: string) => call('priceBook', { query: { q, after, kind: kind.value || undefined } })
</script>

<template>
  <LedgerList title="Price book" filter="Code, name, category" :load="load" :watch-key="kind" empty="The price book is empty.">
    <template #acts><button v-for="[k, name] in [['', 'All'], ['task', 'Tasks'], ['part', 'Parts'], ['labour', 'Labour'], ['charge', 'Charges']] as const" :key="k" class="btn" :class="{ on: kind === k }" :aria-pressed="kind === k" @click="kind = k">{{ name }}</button></template>
    <template #head><tr><th>Code</th><th>Name</th><th>Category</th><th class="right">Hours</th><th class="right">Price</th><th class="right">As a further one</th><th class="right">With a care agreement</th><th class="right">Cost</th></tr></template>
    <template #default="{ item }"><tr><td class="num">{{ item.code }}</td><td>{{ item.name }} <span v-if="item.pinned" class="chip good">at hand</span><template v-if="item.parts"><br><span class="quiet small">with {{ item.parts }}</span></template></td><td class="quiet">{{ item.category }}</td><td class="right num">{{ item.seconds ? hoursMinutes(item.seconds) : '' }}</td><td class="right num">{{ show(item.price) }}</td><td class="right num quiet">{{ show(item.furtherPrice) }}</td><td class="right num quiet">−{{ item.agreementSaving.amount }}</td><td class="right num quiet">{{ show(item.cost) }}</td></tr></template>
  </LedgerList>
</template>
