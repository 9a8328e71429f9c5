<script setup lang="ts">
// Each change that the plan proposes, with its reason: taken or left.
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'
import type { Plan, PlanChange } from './usePlan'

const chosen = defineModel<string[]>({ required: true })
const props = defineProps<{ plan: Plan; busy: boolean }>()
const emit = defineEmits<{ accept: [] }>()
const session = useSession()
const when = (s: { technician: string; startAt: string | null }) =>
  s.startAt ? `${session.dayTime(s.startAt)}, ${s.technician.split(' ')[0]}` : 'no slot'
function promised(c: PlanChange): string {
  if (c.promise) return `${c.promise.slice(11)} ${c.kept ? 'kept' : 'broken'}`
  return c.kept ? 'nothing' : 'loses its slot'
}
function takeAll() {
  const every = props.plan.changes.map((c) => c.visitId)
  chosen.value = chosen.value.length === every.length ? [] : every
}
</script>

<template>
  <DataTable
    :rows="plan.changes"
    :row-key="(c) => c.visitId"
    :columns="[
      { key: 'take', label: 'Take' },
      { key: 'visit', label: 'Visit' },
      { key: 'now', label: 'Now', text: (c) => when(c.from) },
      { key: 'proposed', label: 'Proposed', text: (c) => when(c.to) },
      {
        key: 'promised',
        label: 'Promised',
        tone: (c) => (c.kept ? 'quiet' : 'late'),
        text: promised,
      },
      { key: 'why', label: 'Why', look: 'small', text: (c) => c.why },
    ]"
  >
    <template #takeHead
      ><Check
        label="Take all"
        :model-value="chosen.length === plan.changes.length"
        @change="takeAll"
    /></template>
    <template #take="{ row: c }"
      ><Check
        v-model="chosen"
        :value="c.visitId"
        :label="`Take ${c.title}, ${c.customer}`"
    /></template>
    <template #visit="{ row: c }"
      ><b>{{ c.customer }}</b> <span class="quiet">{{ c.title }}</span></template
    >
  </DataTable>
  <div class="row">
    <ActButton
      primary
      :disabled="busy || !chosen.length || plan.state === 'accepted'"
      @click="emit('accept')"
    >
      {{
        chosen.length === plan.changes.length
          ? `Accept all ${chosen.length}`
          : `Accept ${chosen.length} of ${plan.changes.length}`
      }}
      {{ plan.changes.length === 1 ? 'change' : 'changes' }}</ActButton
    ><span class="quiet">It can be undone on the schedule.</span>
  </div>
</template>
