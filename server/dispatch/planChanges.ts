// What a plan changes, read off its answer.
import { describePlan } from '../../core/dispatch/plan/describePlan'
import type { Plan, PlanInstance } from '../../core/dispatch/plan/instance'
import type { Ctx } from '../http/context'
import type { BoardVisit } from './board.queries'
import type { Wish } from './plans.queries'
import type { DayPlan } from './planInstance'
import { promisedWindow } from './planInstance'

/** What changes for whom: days whose order stays keep their times; on the others a visit begins at the next five minutes. */
export function changesOf(
  ctx: Ctx,
  wish: Wish,
  instance: PlanInstance,
  given: Plan,
  plan: Plan,
  visits: Map<string, BoardVisit>,
  names: Map<string, string>,
): DayPlan['changes'] {
  const zone = ctx.company.timeZone
  const facts = describePlan(instance, plan)
  const before = new Map(given.routes.map((r) => [r.technicianId, r.visitIds.join()]))
  const changes: DayPlan['changes'] = []
  for (const day of facts.days) {
    if (before.get(day.technicianId) === day.stops.map((s) => s.visitId).join()) continue
    const technicianId = day.technicianId.split(' ')[0]!
    for (const stop of day.stops) {
      const v = visits.get(stop.visitId)!
      const startAt = Math.ceil(stop.start / 300) * 300_000
      if (
        v.technicianId === technicianId &&
        v.startAt &&
        Math.abs(Date.parse(v.startAt) - startAt) < 300_000
      )
        continue
      if (instance.visits.find((x) => x.id === v.id)?.locked) continue
      const promised = promisedWindow(v, zone)
      const kept = !promised || (startAt >= promised.from && startAt <= promised.to)
      const why = () => {
        if (!v.startAt || !v.technicianId) return 'had no slot'
        if (v.technicianId === wish.absentId) return `${names.get(v.technicianId)} is away`
        if (!kept) return 'outside the window that was promised: tell the customer'
        return v.technicianId === technicianId ? 'another order' : 'less driving or time over'
      }
      changes.push({
        visitId: v.id,
        version: v.version,
        durationSeconds: v.durationSeconds,
        number: v.number,
        title: v.title,
        customer: v.customer,
        promise: promised ? `${v.promiseDate} ${v.promiseFrom}–${v.promiseTo}` : '',
        kept,
        from: {
          technicianId: v.technicianId,
          technician: v.technicianId ? (names.get(v.technicianId) ?? '') : '',
          startAt: v.technicianId ? v.startAt : null,
        },
        to: {
          technicianId,
          technician: names.get(technicianId) ?? '',
          startAt: new Date(startAt).toISOString(),
        },
        why: why(),
      })
    }
  }
  for (const id of facts.unserved) {
    const v = visits.get(id)!
    if (!v.startAt || !v.technicianId) continue
    changes.push({
      visitId: id,
      version: v.version,
      durationSeconds: v.durationSeconds,
      number: v.number,
      title: v.title,
      customer: v.customer,
      promise:
        v.promiseDate && v.promiseFrom ? `${v.promiseDate} ${v.promiseFrom}–${v.promiseTo}` : '',
      kept: false,
      from: {
        technicianId: v.technicianId,
        technician: names.get(v.technicianId) ?? '',
        startAt: v.startAt,
      },
      to: { technicianId: null, technician: '', startAt: null },
      why: 'no room for it: it goes back to the tray, tell the customer',
    })
  }
  return changes.sort((a, b) =>
    String(a.to.startAt ?? '9').localeCompare(String(b.to.startAt ?? '9')),
  )
}
