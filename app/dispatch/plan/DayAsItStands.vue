<script setup lang="ts">
// The day before anything is proposed: who has what, how far they drive, the way home too, and which promises are at risk.
import { computed } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import type { Answer } from '~~/shared/api'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'

const props = defineProps<{ schedule: Answer<'schedule'> }>()
const session = useSession()
type Visit = Answer<'schedule'>['visits'][number]
const sum = (visits: Visit[], of: (visit: Visit) => number) =>
  visits.reduce((all, visit) => all + of(visit), 0)
const rows = computed(() =>
  props.schedule.technicians.map(({ id, name, homeDriveSeconds }) => {
    const visits = props.schedule.visits
      .filter((v) => v.technicianId === id && v.startAt && v.state !== 'cancelled')
      .sort((a, b) => a.startAt!.localeCompare(b.startAt!))
    return {
      id,
      name,
      visits: visits.length,
      first: visits[0]?.startAt ?? null,
      work: sum(visits, (v) => v.durationSeconds),
      driving: sum(visits, (v) => v.driveSeconds) + homeDriveSeconds,
      atRisk: visits.filter((v) => v.atRisk),
    }
  }),
)
type Row = (typeof rows.value)[number]
const hours = (seconds: number) => (seconds ? `${hoursMinutes(seconds)} h` : '–')
const total = (of: (row: Row) => number) => rows.value.reduce((all, row) => all + of(row), 0)
const COLUMNS: readonly Column<Row>[] = [
  { key: 'who', label: 'Technician', text: (r) => r.name },
  { key: 'visits', label: 'Visits', figures: true, text: (r) => r.visits || '–' },
  { key: 'first', label: 'First', figures: true, text: (r) => session.time(r.first) || '–' },
  { key: 'work', label: 'Work', figures: true, text: (r) => hours(r.work) },
  { key: 'driving', label: 'Driving', figures: true, text: (r) => hours(r.driving) },
  {
    key: 'risk',
    label: 'Promises at risk',
    tone: (r) => (r.atRisk.length ? 'late' : 'quiet'),
    text: (r) => r.atRisk.map((v) => v.customer).join(', ') || 'none',
  },
]
const sums = computed(() => ({
  who: 'The day as it stands',
  visits: String(total((r) => r.visits)),
  work: hours(total((r) => r.work)),
  driving: hours(total((r) => r.driving)),
  risk: String(total((r) => r.atRisk.length)),
}))
</script>

<template>
  <DataTable
    label="The day as it stands"
    :rows="rows"
    :row-key="(r) => r.id"
    :columns="COLUMNS"
    :sums="sums"
  />
  <p class="quiet">
    {{ schedule.tray.length }} {{ schedule.tray.length === 1 ? 'visit waits' : 'visits wait' }} for
    a slot. The planner keeps promises first, then serves everybody, then avoids time over, then
    driving. It proposes; you accept all of it, some, or nothing.
  </p>
</template>
