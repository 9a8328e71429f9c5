<script setup lang="ts">
// Whom to act on, first where a call helps most, with the reason and the act that is proposed.
import ActButton from '~/base/ActButton.vue'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import TableActs from '~/base/TableActs.vue'
import { useSession } from '~/stores/session'
import type { Unpaid } from './useOwing'

type Entry = Unpaid['worklist'][number]
const chosen = defineModel<string>('chosen', { required: true })
defineProps<{ entries: Entry[]; /** its acts may be done: it is today's */ acts: boolean }>()
const emit = defineEmits<{ act: [entry: Entry] }>()
const session = useSession()
const ACTS: Record<string, string> = {
  call: 'Call',
  remind: 'Send reminder',
  letter: 'Write a letter',
  settle: 'Settle dispute',
  wait: 'Wait',
}
const LATE_DAYS = 30
const COLUMNS: readonly Column<Entry>[] = [
  { key: 'customer', label: 'Customer', file: (e) => e.name },
  {
    key: 'overdue',
    label: 'Overdue',
    figures: true,
    text: (e) => session.money(e.overdue, false),
    file: (e) => e.overdue.amount,
  },
  {
    key: 'late',
    label: 'Late',
    figures: true,
    tone: (e) => ({ late: e.late > LATE_DAYS }),
    text: (e) => `${e.late} d`,
    file: (e) => e.late,
  },
  { key: 'whyNow', label: 'Why now', text: (e) => e.reason },
  { key: 'expected', label: 'Expected', look: 'small num', file: (e) => e.expectedOn },
  { key: 'nextAct', label: 'Next act', file: (e) => ACTS[e.act] },
]
</script>

<template>
  <div>
    <DataTable
      :rows="entries"
      :row-key="(e) => e.customerId"
      picks
      :tone="(e) => ({ chosen: e.customerId === chosen, rest: e.resting })"
      :columns="COLUMNS"
      @pick="(e) => (chosen = e.customerId)"
    >
      <template #customer="{ row: e }">
        <ActButton
          quiet
          class="link"
          @click.stop="chosen = e.customerId"
        >
          {{ e.name }}
        </ActButton>
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
        <span
          v-if="e.act === 'wait' || !acts"
          class="quiet"
          >{{ ACTS[e.act] }}</span
        >
        <ActButton
          v-else
          :primary="e.customerId === chosen && !e.resting"
          @click.stop="emit('act', e)"
        >
          {{ ACTS[e.act] }}
        </ActButton>
      </template>
    </DataTable>
    <TableActs
      name="Whom to act on"
      :columns="COLUMNS"
      :rows="() => entries"
    />
  </div>
</template>

<style scoped>
.link {
  padding: 0;
  font-weight: 650;
  text-align: left;
}
:deep(.rest td) {
  color: var(--ink-2);
}
</style>
