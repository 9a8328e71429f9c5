<script setup lang="ts">
// Customers and prospects in one list, with what they owe.
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useFilter } from '~/lib/useFilter'
import { useSession } from '~/stores/session'
import PressOne from '~/base/PressOne.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const kind = useFilter<'' | 'customer' | 'prospect' | 'owing'>('kind')
const load = (q: string, after?: string) =>
  call('customers', {
    query: {
      q,
      after,
      kind: kind.value === 'owing' || !kind.value ? undefined : kind.value,
      owing: kind.value === 'owing' ? 'yes' : undefined,
    },
  })
const office = computed(() => session.may('customers.import'))
const KINDS = [
  ['', 'All'],
  ['customer', 'Customers'],
  ['prospect', 'Prospects'],
  ['owing', 'Owing'],
] as const
</script>

<template>
  <LedgerList
    title="Customers"
    filter="Name, town, number, tag"
    :load="load"
    :watch-key="kind"
    :empty="
      kind ? 'There is none of these.' : 'There is no customer yet. The first call makes one.'
    "
    picks
    :columns="[
      { key: 'customer', label: 'Customer', text: (item) => item.name },
      { key: 'telephone', label: 'Telephone', look: 'num', text: (item) => item.phone },
      { key: 'mail', label: 'Mail', text: (item) => item.email },
      { key: 'town', label: 'Town', text: (item) => item.town },
      { key: 'sites', label: 'Sites', figures: true, text: (item) => item.sites },
      {
        key: 'owes',
        label: 'Owes',
        figures: true,
        tone: (item) => ({ late: item.late }),
        file: (item) => item.owed.amount,
      },
    ]"
    @pick="(item) => navigateTo(`/customers/${item.id}`)"
  >
    <template #acts>
      <PressOne
        v-model="kind"
        :options="KINDS"
      />
      <template v-if="office"
        ><NuxtLink
          class="btn"
          to="/customers/duplicates"
          >Duplicates</NuxtLink
        ><NuxtLink
          class="btn"
          to="/customers/import"
          >Import</NuxtLink
        ><a
          class="btn"
          href="/api/v1/export/customers.csv"
          >CSV</a
        ><a
          class="btn"
          href="/api/v1/export/contacts.vcf"
          >Cards</a
        ></template
      >
    </template>

    <template #customer="{ row: item }"
      ><NuxtLink :to="`/customers/${item.id}`">{{ item.name }}</NuxtLink
      >{{ ' '
      }}<span
        v-if="item.prospect"
        class="chip soon"
        >prospect</span
      >{{ ' '
      }}<span
        v-for="t in item.tags"
        :key="t"
        class="chip"
        >{{ t }}</span
      ><template v-if="item.next"
        ><br /><span
          class="small"
          :class="item.next.startsWith('nobody') ? 'late' : 'quiet'"
          >{{ item.next }}</span
        ></template
      ></template
    >

    <template #owes="{ row: item }"
      >{{ Number(item.owed.amount) ? session.money(item.owed) : '–'
      }}<template v-if="item.late"
        ><br /><span class="small">{{ item.late }} days late</span></template
      ></template
    >
  </LedgerList>
</template>
