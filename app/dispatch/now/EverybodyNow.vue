<script setup lang="ts">
// Everybody who works today: where they are, until when that is likely to last, and where they are wanted next.
import { computed } from 'vue'
import { nowAndNext } from '~~/core/dispatch/nowAndNext'
import type { VisitState } from '~~/core/visits/visitLifecycle'
import type { Answer } from '~~/shared/api'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

type Visit = Answer<'schedule'>['visits'][number]
const session = useSession()
const { data } = useAnswer('schedule', () => ({ query: { date: session.today } }), SHOWS.day)
const rows = computed(() =>
  (data.value?.technicians ?? [])
    .map(({ id, name, working }) => {
      const visits = data.value!.visits.filter(
        (v) => v.technicianId === id || v.crewIds.includes(id) || v.alongIds.includes(id),
      )
      return { id, name, works: working.length > 0, ...nowAndNext(visits) }
    })
    .filter((row) => row.works || row.now || row.left || row.over),
)
type Row = (typeof rows.value)[number]
const AT: Partial<Record<VisitState, string>> = {
  driving: 'driving to',
  on_site: 'on site at',
  paused: 'pause at',
}
const where = (visit: Visit) => `${visit.customer}, ${visit.town}`
function sayNow({ now, left, over }: Row): string {
  if (now) return `${AT[now.state]} ${where(now)}`
  if (!left) return over ? 'done for today' : 'no visit today'
  return over ? 'between two visits' : 'not begun yet'
}
function sayLeft({ left, over, now }: Row): string {
  const all = left + over + (now ? 1 : 0)
  return all ? `${left} of ${all}` : '–'
}
const COLUMNS: readonly Column<Row>[] = [
  { key: 'who', label: 'Technician', look: 'strong', text: (row) => row.name },
  { key: 'now', label: 'Now', text: sayNow },
  {
    key: 'until',
    label: 'Likely until',
    figures: true,
    text: (row) => session.time(row.now?.finishAt ?? null) || '–',
  },
  { key: 'next', label: 'Next', text: (row) => (row.next ? where(row.next) : '–') },
  {
    key: 'expected',
    label: 'Expected there',
    figures: true,
    text: (row) => session.time(row.next?.arriveAt ?? null) || '–',
  },
  {
    key: 'promised',
    label: 'Promised',
    figures: true,
    tone: (row) => ({ late: row.next?.atRisk }),
    text: ({ next }) => (next?.promiseFrom ? `${next.promiseFrom}–${next.promiseTo}` : '–'),
  },
  {
    key: 'left',
    label: 'Visits left',
    figures: true,
    text: sayLeft,
  },
]
</script>

<template>
  <section
    v-if="rows.length"
    aria-labelledby="everybody-now"
    class="stack"
  >
    <h2 id="everybody-now">Everybody today</h2>
    <DataTable
      label="Everybody today"
      :rows="rows"
      :row-key="(row) => row.id"
      :columns="COLUMNS"
      picks
      @pick="(row) => navigateTo({ path: '/schedule/one', query: { technician: row.id } })"
    />
  </section>
</template>
