<script setup lang="ts">
// Customers and prospects in one list, with what they owe.
import { ref } from 'vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const kind = ref<'' | 'customer' | 'prospect' | 'owing'>('')
const load = (q: string, after?: string) =>
  call('customers', {
    query: {
      q,
      after,
      kind: kind.value === 'owing' || !kind.value ? undefined : kind.value,
      owing: kind.value === 'owing' ? 'yes' : undefined,
    },
  })
const office = computed(() => ['owner', 'office'].includes(session.role))
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
    empty="There is no customer yet. The first call makes one."
  >
    <template #acts>
      <button
        v-for="[k, name] in KINDS"
        :key="k"
        class="btn"
        :class="{ on: kind === k }"
        :aria-pressed="kind === k"
        @click="kind = k"
      >
        {{ name }}
      </button>
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
    <template #head
      ><tr>
        <th>Customer</th>
        <th>Telephone</th>
        <th>Mail</th>
        <th>Town</th>
        <th class="right">Sites</th>
        <th class="right">Owes</th>
      </tr></template
    >
    <template #default="{ item }">
      <tr
        class="pick"
        @click="navigateTo(`/customers/${item.id}`)"
      >
        <td>
          <NuxtLink :to="`/customers/${item.id}`">{{ item.name }}</NuxtLink>{{ ' '
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
          >
        </td>
        <td class="num">{{ item.phone }}</td>
        <td>{{ item.email }}</td>
        <td>{{ item.town }}</td>
        <td class="right num">{{ item.sites }}</td>
        <td
          class="right num"
          :class="{ late: item.late }"
        >
          {{ Number(item.owed.amount) ? session.money(item.owed) : '–'
          }}<template v-if="item.late"
            ><br /><span class="small">{{ item.late }} days late</span></template
          >
        </td>
      </tr>
    </template>
  </LedgerList>
</template>
