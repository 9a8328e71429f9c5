<script setup lang="ts">
// What came of the calls: by where callers heard of the firm, by kind of work, by what the call was about.
import { computed } from 'vue'
import PressOne from '~/base/PressOne.vue'
import DataTable from '~/base/DataTable.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import Pending from '~/base/Pending.vue'
import CallOutcomes from '~/calls/CallOutcomes.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useFilter } from '~/lib/useFilter'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office', may: 'calls.see' })
const session = useSession()
const from = useFilter('from')
const to = useFilter('to')
const by = useFilter<'source' | 'kind' | 'about'>('by', 'source')
const BY = [
  ['source', 'Heard of us'],
  ['kind', 'Kind of work'],
  ['about', 'About'],
] as const
const { data, problem, refresh } = useAnswer(
  'callsCounted',
  () => ({
    query: { from: from.value || undefined, to: to.value || undefined, by: by.value },
  }),
  SHOWS.callsCounted,
)
const heading = computed(() => BY.find(([key]) => key === by.value)?.[1] ?? '')
const share = (part: number, of: number) => (of ? `${Math.round((part * 100) / of)} %` : '–')
</script>

<template>
  <section class="page">
    <div class="row">
      <h1 class="grow">What came of the calls</h1>
      <PressOne
        v-model="by"
        :options="BY"
      />
      <Field
        label="From"
        inline
        ><DateInput
          :model-value="from || data?.from"
          :max="session.today"
          @update:model-value="from = $event ?? ''" /></Field
      ><Field
        label="to"
        inline
        ><DateInput
          :model-value="to || data?.to"
          :max="session.today"
          @update:model-value="to = $event ?? ''"
      /></Field>
    </div>
    <template v-if="data?.items.length">
      <CallOutcomes :items="data.items" />
      <DataTable
        label="Calls and what came of them"
        :rows="data.items"
        :row-key="(row) => row.key"
        :columns="[
          { key: 'name', label: heading, text: (row) => row.name },
          { key: 'calls', label: 'Calls', figures: true, text: (row) => row.calls },
          { key: 'work', label: 'Work', figures: true, text: (row) => row.came.work },
          {
            key: 'share',
            label: 'of these',
            figures: true,
            look: 'quiet',
            text: (row) => share(row.came.work, row.calls),
          },
          { key: 'quote', label: 'Quoted', figures: true, text: (row) => row.came.quote },
          { key: 'answered', label: 'Answered', figures: true, text: (row) => row.came.answered },
          { key: 'declined', label: 'No', figures: true, text: (row) => row.came.declined },
          { key: 'waiting', label: 'Waiting', figures: true, text: (row) => row.came.waiting },
          {
            key: 'billed',
            label: 'Billed',
            figures: true,
            text: (row) => session.money(row.billed, false),
          },
          {
            key: 'paid',
            label: 'Paid',
            figures: true,
            text: (row) => session.money(row.paid, false),
          },
        ]"
        :sums="{
          name: 'All',
          calls: String(data.all.calls),
          work: String(data.all.came.work),
          share: share(data.all.came.work, data.all.calls),
          quote: String(data.all.came.quote),
          answered: String(data.all.came.answered),
          declined: String(data.all.came.declined),
          waiting: String(data.all.came.waiting),
          billed: session.money(data.all.billed, false),
          paid: session.money(data.all.paid, false),
        }"
      />
      <p class="quiet small">
        Calls that began in these days. Where nobody said at the call how they heard of us, what is
        kept with the customer counts. Billed and paid is what stands on the invoices of their work
        until today, with tax, whenever it was.
      </p>
    </template>
    <p
      v-else-if="data"
      class="empty sheet"
    >
      No call began in these days.
    </p>
    <Pending
      v-else
      :problem="problem"
      :again="refresh"
    />
  </section>
</template>
