<script setup lang="ts">
// All work orders, by state and kind.
import { ref } from 'vue'
import { CALL_KINDS } from '~~/shared/calls'
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const route = useRoute()
const STATES = [
  'needs_slot',
  'scheduled',
  'on_site',
  'paused',
  'to_bill',
  'billed',
  'closed',
  'cancelled',
] as const
const state = ref(typeof route.query.state === 'string' ? route.query.state : '')
const kind = ref('')
const parked = ref(typeof route.query.followUp === 'string' ? route.query.followUp : '')
const { data: lists } = useLoad(() => call('followUpLists'))
const load = (q: string, after?: string) =>
  call('workOrders', {
    query: {
      q,
      after,
      state: state.value || undefined,
      kind: kind.value || undefined,
      followUp: parked.value || undefined,
    },
  })
const zero = (m: { amount: string }) => Number(m.amount) === 0
</script>

<template>
  <LedgerList
    title="Work orders"
    filter="Number, words, customer, town"
    :load="load"
    :watch-key="`${state} ${kind} ${parked}`"
    empty="No work order is like that."
  >
    <template #acts>
      <label class="row small"
        >State
        <select
          v-model="state"
          class="plain"
        >
          <option value="">any</option>
          <option
            v-for="s in STATES"
            :key="s"
            :value="s"
          >
            {{ session.state(s) }}
          </option>
        </select></label
      >
      <label class="row small"
        >Kind
        <select
          v-model="kind"
          class="plain"
        >
          <option value="">any</option>
          <option
            v-for="k in CALL_KINDS"
            :key="k"
          >
            {{ k }}
          </option>
        </select></label
      >
      <label class="row small"
        >Parked in
        <select
          v-model="parked"
          class="plain"
        >
          <option value="">any or none</option>
          <option value="*">any list</option>
          <option
            v-for="l in lists?.items ?? []"
            :key="l"
          >
            {{ l }}
          </option>
        </select></label
      >
    </template>
    <template #head
      ><tr>
        <th>Work order</th>
        <th>Customer</th>
        <th>Kind</th>
        <th>Technician</th>
        <th>Made</th>
        <th class="right">To bill, net</th>
        <th>State</th>
      </tr></template
    >
    <template #default="{ item }"
      ><tr
        class="pick"
        @click="navigateTo(`/work/${item.id}`)"
      >
        <td>
          <NuxtLink
            :to="`/work/${item.id}`"
            class="num"
            >{{ item.number }}</NuxtLink
          >
          {{ item.title
          }}<span
            v-if="item.followUp"
            class="chip"
            :class="{ late: item.overdue }"
            >{{ item.followUp
            }}{{ item.followUpOn ? `, ${session.day(item.followUpOn)}` : '' }}</span
          >
        </td>
        <td>{{ item.customer }}, {{ item.town }}</td>
        <td>{{ item.kind }}</td>
        <td>{{ item.technician }}</td>
        <td>{{ session.dayTime(item.createdAt) }}</td>
        <td class="right num">{{ zero(item.toBill) ? '–' : session.money(item.toBill) }}</td>
        <td :class="{ late: item.state === 'to_bill', soon: item.state === 'needs_slot' }">
          {{ session.state(item.state) }}
        </td>
      </tr></template
    >
  </LedgerList>
</template>
