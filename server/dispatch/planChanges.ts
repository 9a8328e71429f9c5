// What a plan changes, read off its answer.
import { describePlan } from '../../core/dispatch/plan/describePlan'
import type { Plan, PlanInstance } from '../../core/dispatch/plan/instance'
import type { BoardVisit } from './board.queries'
import type { Wish } from './plans.queries'
import type { DayPlan } from './planInstance'
import { promisedWindow } from './planInstance'

/** What a plan was made of, and who and what its names stand for. */
export interface Planned {
  wish: Wish
  instance: PlanInstance
  given: Plan
  visits: ReadonlyMap<string, BoardVisit>
  names: ReadonlyMap<string, string>
  timeZone: string
}
type Change = DayPlan['changes'][number]
/** Visits begin at the next five minutes. */
const STEP_SECONDS = 300
const STEP_MS = STEP_SECONDS * 1000

/** Who has it when, before or after. */
const place = ({ names }: Planned, technicianId: string | null, startAt: string | null) => ({
  technicianId,
  technician: technicianId ? (names.get(technicianId) ?? '') : '',
  startAt: technicianId ? startAt : null,
})
/** What stands in every change of a visit. */
function about(planned: Planned, v: BoardVisit) {
  const promised = promisedWindow(v, planned.timeZone)
  return {
    visitId: v.id,
    version: v.version,
    durationSeconds: v.durationSeconds,
    number: v.number,
    title: v.title,
    customer: v.customer,
    promise: promised ? `${v.promiseDate} ${v.promiseFrom}–${v.promiseTo}` : '',
    from: place(planned, v.technicianId, v.startAt),
  }
}
function why(planned: Planned, v: BoardVisit, technicianId: string, kept: boolean): string {
  if (!v.startAt || !v.technicianId) return 'had no slot'
  if (v.technicianId === planned.wish.absentId)
    return `${planned.names.get(v.technicianId)} is away`
  if (!kept) return 'outside the window that was promised: tell the customer'
  return v.technicianId === technicianId ? 'another order' : 'less driving or time over'
}
function moved(planned: Planned, v: BoardVisit, technicianId: string, start: number): Change[] {
  const startAt = Math.ceil(start / STEP_SECONDS) * STEP_MS
  const stays =
    v.technicianId === technicianId &&
    v.startAt &&
    Math.abs(Date.parse(v.startAt) - startAt) < STEP_MS
  if (stays || planned.instance.visits.find((x) => x.id === v.id)?.locked) return []
  const promised = promisedWindow(v, planned.timeZone)
  const kept = !promised || (startAt >= promised.from && startAt <= promised.to)
  const to = place(planned, technicianId, new Date(startAt).toISOString())
  return [{ ...about(planned, v), kept, to, why: why(planned, v, technicianId, kept) }]
}
/** A visit that had its slot and loses it. */
function dropped(planned: Planned, v: BoardVisit): Change[] {
  if (!v.startAt || !v.technicianId) return []
  const sentence = 'no room for it: it goes back to the tray, tell the customer'
  return [{ ...about(planned, v), kept: false, to: place(planned, null, null), why: sentence }]
}

/** What changes for whom: days whose order stays keep their times. */
export function changesOf(planned: Planned, plan: Plan): Change[] {
  const { instance, given, visits } = planned
  const facts = describePlan(instance, plan)
  const before = new Map(given.routes.map((r) => [r.technicianId, r.visitIds.join()]))
  const changed = facts.days.filter(
    ({ technicianId, stops }) => before.get(technicianId) !== stops.map((s) => s.visitId).join(),
  )
  const changes = [
    ...changed.flatMap(({ technicianId, stops }) =>
      // A day is named by its technician and its date.
      stops.flatMap((stop) =>
        moved(planned, visits.get(stop.visitId)!, technicianId.split(' ')[0]!, stop.start),
      ),
    ),
    ...facts.unserved.flatMap((id) => dropped(planned, visits.get(id)!)),
  ]
  const begins = ({ to }: Change) => to.startAt ?? '9'
  return changes.sort((a, b) => begins(a).localeCompare(begins(b)))
}
