<script setup lang="ts">
// The price book: found by words, kind and category; an entry opens with what its price is made of.
import { computed, ref } from 'vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { call } from '~/lib/api'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data: rules } = useLoad(() => call('pricing'))
const show = (amount: string | null) => (amount === null ? '' : session.money({ amount, currency: session.me!.company.currency }, false))
const kind = ref<'' | 'task' | 'part' | 'labour' | 'charge'>('')
const category = ref('')
const retired = ref(false)
const owns = computed(() => ['owner', 'office'].includes(session.role))
const load = (q: string, after?: string) => call('priceBook', { query: { q, after, kind: kind.value || undefined, category: category.value || undefined, retired: retired.value ? 'yes' : undefined } })
const KINDS = [['', 'All'], ['task', 'Tasks'], ['part', 'Parts'], ['labour', 'Labour'], ['charge', 'Charges']] as const
</script>

<template>
  <LedgerList title="Price book" filter="Code, name, category" :load="load" :watch-key="`${kind} ${category} ${retired}`" :empty="retired ? 'Nothing was retired.' : 'The price book is empty.'">
    <template #acts>
      <button v-for="[k, name] in KINDS" :key="k" class="btn" :class="{ on: kind === k }" :aria-pressed="kind === k" @click="kind = k">{{ name }}</button>
      <select v-model="category" class="plain" aria-label="Category" style="width: 130px"><option value="">any category</option><option v-for="c in rules?.categories ?? []" :key="c" :value="c">{{ c }}</option></select>
      <label class="row small nowrap"><input v-model="retired" type="checkbox"> retired</label>
      <template v-if="owns"><NuxtLink class="btn act" to="/price-book/new">New entry</NuxtLink><NuxtLink class="btn" to="/price-book/reprice">Change prices…</NuxtLink></template><NuxtLink class="btn" to="/price-book/rules">Rules</NuxtLink>
    </template>
    <template #head><tr><th>Code</th><th>Name</th><th>Category</th><th class="right">Hours</th><th class="right">Price</th><th class="right">As a further one</th><th class="right">With a care agreement</th><th class="right">Cost</th></tr></template>
    <template #default="{ item }"><tr class="pick" @click="navigateTo(`/price-book/${item.id}`)"><td class="num"><NuxtLink :to="`/price-book/${item.id}`">{{ item.code }}</NuxtLink></td><td>{{ item.name }} <span v-if="item.pinned" class="chip good">at hand</span><template v-if="item.parts"><br><span class="quiet small">with {{ item.parts }}</span></template></td><td class="quiet">{{ item.category }}</td><td class="right num">{{ item.seconds ? hoursMinutes(item.seconds) : '' }}</td><td class="right num">{{ show(item.price) }}</td><td class="right num quiet">{{ show(item.furtherPrice) }}</td><td class="right num quiet">−{{ item.agreementSaving.amount }}</td><td class="right num quiet">{{ show(item.cost) }}</td></tr></template>
  </LedgerList>
</template>
