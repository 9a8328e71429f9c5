<script setup lang="ts">
// Whom to act on, first where a call helps most, with the reason and the act that is proposed.
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'
import type { Unpaid } from './useOwing'

type Entry = Unpaid['worklist'][number]
const chosen = defineModel<string>('chosen', { required: true })
defineProps<{ entries: Entry[] }>()
const emit = defineEmits<{ act: [entry: Entry] }>()
const session = useSession()
const ACTS: Record<string, string> = {
  call: 'Call',
  remind: 'Send reminder',
  settle: 'Settle dispute',
  wait: 'Wait',
}
const LATE_DAYS = 30
</script>

<template>
  <DataTable
    :rows="entries"
    :row-key="(e) => e.customerId"
    picks
    :tone="(e) => ({ chosen: e.customerId === chosen, rest: e.resting })"
    :columns="[
      { key: 'customer', label: 'Customer' },
      {
        key: 'overdue',
        label: 'Overdue',
        figures: true,
        text: (e) => session.money(e.overdue, false),
      },
      {
        key: 'late',
        label: 'Late',
        figures: true,
        tone: (e) => ({ late: e.late > LATE_DAYS }),
        text: (e) => `${e.late} d`,
      },
      { key: 'whyNow', label: 'Why now', text: (e) => e.reason },
      { key: 'expected', label: 'Expected', look: 'small num' },
      { key: 'nextAct', label: 'Next act' },
    ]"
    @pick="(e) => (chosen = e.customerId)"
  >
    <template #customer="{ row: e }">
      <button
        class="link"
        @click.stop="chosen = e.customerId"
      >
        {{ e.name }}
      </button>
      <br />
      <span class="quiet small">{{ e.phone || e.email }}</span>
    </template>
    <template #expected="{ row: e }">
      {{ e.expectedOn ? session.day(e.expectedOn) : '–' }}
      <template v-if="e.spreadDays">
        <br /><span class="quiet">± {{ e.spreadDays }} days</span>
      </template>
    </template>
    <template #nextAct="{ row: e }">
      <ActButton
        :primary="e.customerId === chosen && !e.resting"
        @click.stop="emit('act', e)"
      >
        {{ ACTS[e.act] }}
      </ActButton>
    </template>
  </DataTable>
</template>

<style scoped>
.link {
  border: 0;
  background: none;
  padding: 0;
  font-weight: 650;
  text-align: left;
  cursor: pointer;
}
:deep(.rest td) {
  color: var(--ink-2);
}
</style>
