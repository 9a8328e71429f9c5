<script setup lang="ts">
// All work orders, by state and kind.
import { WORK_ORDER_STATES } from '~~/core/visits/workOrderState'
import LedgerList from '~/components/base/LedgerList.vue'
import { call } from '~/lib/api'
import { useFilter } from '~/lib/useFilter'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const state = useFilter('state')
const kind = useFilter('kind')
const parked = useFilter('followUp')
const { data: lists } = useAnswer('followUpLists')
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
    picks
    :columns="[
      { key: 'workOrder', label: 'Work order', file: (item) => `${item.number} ${item.title}` },
      { key: 'customer', label: 'Customer', text: (item) => `${item.customer}, ${item.town}` },
      { key: 'kind', label: 'Kind', text: (item) => session.workKind(item.kind) },
      { key: 'technician', label: 'Technician', text: (item) => item.technician },
      { key: 'made', label: 'Made', text: (item) => session.dayTime(item.createdAt) },
      {
        key: 'toBillNet',
        label: 'To bill, net',
        figures: true,
        text: (item) => (zero(item.toBill) ? '–' : session.money(item.toBill)),
        file: (item) => item.toBill.amount,
      },
      {
        key: 'state',
        label: 'State',
        tone: (item) => ({ late: item.state === 'to_bill', soon: item.state === 'needs_slot' }),
        text: (item) => session.state(item.state),
      },
    ]"
    @pick="(item) => navigateTo(`/work/${item.id}`)"
  >
    <template #acts>
      <Field
        inline
        label="State"
        ><Choice
          v-model="state"
          :options="[
            { value: '', label: 'any' },
            ...WORK_ORDER_STATES.map((s) => ({ value: s, label: session.state(s) })),
          ]"
      /></Field>
      <Field
        inline
        label="Kind"
        ><Choice
          v-model="kind"
          :options="[
            { value: '', label: 'any' },
            ...session.workKinds.map((k) => ({ value: k.code, label: k.name })),
          ]"
      /></Field>
      <Field
        inline
        label="Parked in"
        ><Choice
          v-model="parked"
          :options="[
            { value: '', label: 'any or none' },
            { value: '*', label: 'any list' },
            ...(lists?.items ?? []).map((l) => ({ value: l, label: l })),
          ]"
      /></Field>
      <a
        v-if="session.may('figures.export')"
        class="btn plain"
        href="/api/v1/export/work-orders.csv"
        >All as CSV</a
      >
    </template>

    <template #workOrder="{ row: item }"
      ><NuxtLink
        :to="`/work/${item.id}`"
        class="num"
        >{{ item.number }}</NuxtLink
      >
      {{ item.title
      }}<span
        v-if="item.followUp"
        class="chip"
        :class="{ late: item.overdue }"
        >{{ item.followUp }}{{ item.followUpOn ? `, ${session.day(item.followUpOn)}` : '' }}</span
      ></template
    >
  </LedgerList>
</template>
