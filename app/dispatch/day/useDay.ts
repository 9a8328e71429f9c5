// A day of the schedule: loaded, kept live, and sorted into the rows that the board shows.
import { computed, type Ref } from 'vue'
import type { Answer } from '~~/shared/api'
import type { Frame, Lane } from '~/lib/boardDay'
import { keepEqual } from '~/lib/keepEqual'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useScheduleFilter } from '~/stores/scheduleFilter'

export type Day = Answer<'schedule'>
export type Visit = Answer<'placeVisit'>
export const NO_LANE: Lane = { visits: [], helps: [], held: [] }
/** A time that nobody has yet stands in a row of its own, under the people. */
export const NOBODY: Day['technicians'][number] = {
  id: '',
  name: 'Nobody yet',
  kind: 'employee',
  goesWith: null,
  skills: [],
  territories: [],
  working: [],
  timeOff: [],
  homeAt: null,
  homeDriveSeconds: 0,
}
/** Visits of others that somebody goes along to are moved in the row of the one who leads. */
const laneOf = (day: Day, id: string): Lane => ({
  visits: day.visits.filter((v) => (v.technicianId ?? '') === id),
  helps: day.visits.filter(
    (v) =>
      id !== '' && v.technicianId !== id && (v.crewIds.includes(id) || v.alongIds.includes(id)),
  ),
  held: day.held.filter((h) => h.technicianId === id),
})

/** @param tried whether a placement is being tried, for which the row of nobody is shown */
export function useDay(date: Ref<string>, tried: Ref<boolean>) {
  const filters = useScheduleFilter()
  const {
    data: day,
    problem,
    refresh,
  } = useAnswer('schedule', () => ({ query: { date: date.value } }), SHOWS.day)
  const frame = computed((before?: Frame) => {
    const from = Date.parse(day.value?.dayStart ?? '')
    return keepEqual(before, { from, span: Date.parse(day.value?.dayEnd ?? '') - from })
  })
  /** What stands in each row; '' is the row of what nobody has yet. */
  const lanes = computed((before?: Map<string, Lane>) => {
    const now = day.value
    const ids = now ? ['', ...now.technicians.map((t) => t.id)] : []
    return new Map<string, Lane>(
      ids.map((id) => [id, keepEqual(before?.get(id), laneOf(now!, id))]),
    )
  })
  const people = computed(() => [
    ...(day.value?.technicians ?? []).filter((t) => filters.shows(t.id)),
    ...(tried.value || lanes.value.get('')?.visits.length ? [NOBODY] : []),
  ])
  /** What waits for a slot; what was to be on this very day stands in its row instead. */
  const tray = computed(() =>
    (day.value?.tray ?? []).filter((v) => !day.value!.visits.some((o) => o.id === v.id)),
  )
  const visitOf = (id: string | null): Visit | undefined =>
    [...(day.value?.visits ?? []), ...(day.value?.tray ?? [])].find((v) => v.id === id)
  const nameOf = (id: string | null) =>
    day.value?.technicians.find((t) => t.id === id)?.name.split(' ')[0] ?? ''
  return { day, problem, refresh, frame, lanes, people, tray, visitOf, nameOf }
}
