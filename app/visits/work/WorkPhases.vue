<script setup lang="ts">
// The phases of long work, each with its own sums, how far it is, and what it cost; and where they are named.
import { computed, ref } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import ActButton from '~/base/ActButton.vue'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'
import PhaseForm from './PhaseForm.vue'
import { isZero, type Work } from './useWorkOrder'

type Phase = Work['phases'][number]
const props = defineProps<{ work: Work; edits: boolean; refresh: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [work: Work] }>()
const session = useSession()
const open = ref(false)
const show = (money: Phase['done']) => (isZero(money) ? '–' : session.money(money, false))
const figure = (key: 'promised' | 'done' | 'billed' | 'paid', label: string): Column<Phase> => ({
  ...{ key, label, figures: true },
  text: (phase) => show(phase[key]),
  tone: ({ toBill }) => ({ gap: key === 'done' && !isZero(toBill) }),
})
const columns = computed<Column<Phase>[]>(() => [
  { key: 'name', label: 'Phase', text: ({ name }) => name || 'Of no phase' },
  {
    ...{ key: 'far', label: 'Lines done' },
    text: ({ lines, linesDone }) => (lines ? `${linesDone} of ${lines}` : '–'),
  },
  figure('promised', 'Promised'),
  figure('done', 'Done'),
  figure('billed', 'Billed'),
  figure('paid', 'Paid'),
  {
    ...{ key: 'hours', label: 'On site', figures: true },
    text: ({ siteSeconds }) => (siteSeconds ? `${hoursMinutes(siteSeconds)} h` : '–'),
  },
  ...(props.work.price.cost
    ? [
        {
          ...{ key: 'cost', label: 'Cost', figures: true },
          text: ({ cost }: Phase) => show(cost!),
        },
      ]
    : []),
])
</script>

<template>
  <section
    v-if="work.phases.length"
    class="sheet phases"
  >
    <DataTable
      label="Phases"
      :rows="work.phases"
      :row-key="({ id }) => id ?? 'none'"
      :columns="columns"
    />
  </section>
  <ActButton
    v-if="edits && session.may('visits.follow')"
    quiet
    class="small no-print start"
    @click="open = true"
  >
    {{ work.phases.length ? 'Change the phases…' : '+ phases of long work' }}
  </ActButton>
  <PhaseForm
    v-if="open"
    :work="work"
    :refresh="refresh"
    @changed="emit('changed', $event)"
    @close="open = false"
  />
</template>

<style scoped>
.phases :deep(td.gap) {
  background: var(--brick-1);
  color: var(--brick);
  font-weight: 700;
}
.start {
  align-self: flex-start;
}
</style>
