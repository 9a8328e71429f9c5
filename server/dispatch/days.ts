// Technicians' days as the planner and the search for openings see them: hours, what is booked, what blocks, who can what.
import type { OpeningDay, OpeningStop } from '../../core/dispatch/openings'
import { localDate, localToInstant, plusDays, weekday } from '../../core/time/zone'
import { callDraft } from '../../shared/calls'
import type { Answer } from '../../shared/api'
import { heldNow } from '../calls/queries'
import type { Ctx } from '../http/context'
import { json, territories } from '../settings/queries'
import { entriesBetween, holidaysBetween, stopsBetween, technicians, timeOffBetween, type Technician } from './queries'

export interface TechnicianDay extends OpeningDay { person: Technician, stops: (OpeningStop & { locked: boolean, state: string })[] }
const placeOf = (p: { lat: number | null, lon: number | null }) => (p.lat === null ? null : { lat: p.lat, lon: p.lon! })

/** The days of all who can be booked, from a date on. `callId` names the call that asks: what it holds itself is free for it. */
export async function technicianDays(ctx: Ctx, first: string, count: number, options: { callId?: string | null, visitId?: string | null, technicianId?: string | null } = {}): Promise<TechnicianDay[]> {
  const { tx, company } = ctx
  const zone = company.timeZone
  const dates = Array.from({ length: count }, (_, i) => plusDays(first, i))
  const starts = new Map([...dates, plusDays(first, count)].map(d => [d, localToInstant(d, '00:00', zone)]))
  const from = starts.get(first)!
  const to = starts.get(plusDays(first, count))!
  const people = (await technicians(tx)).filter(p => !options.technicianId || p.id === options.technicianId)
  const [visits, off, entries, free, areas, calls] = [await stopsBetween(tx, from, to), await timeOffBetween(tx, from, to), await entriesBetween(tx, from, to), await holidaysBetween(tx, first, dates.at(-1)!), await territories(tx), await heldNow(tx, ctx.now, options.callId ?? null)]
  const held = calls.flatMap((c) => {
    const draft = callDraft.cast(json<object>(c.draft)) as Answer<'call'>['draft']
    if (!draft.technicianId || !draft.date || !draft.start) return []
    const at = localToInstant(draft.date, draft.start, zone)
    return [{ personId: draft.technicianId, from: at, to: at + draft.durationSeconds * 1000 }]
  })
  const byDay = new Map<string, typeof visits>()
  for (const v of visits) {
    const key = `${v.technicianId} ${localDate(Date.parse(v.startAt), zone)}`
    byDay.set(key, [...byDay.get(key) ?? [], v])
  }
  const times = new Map<string, number>()
  const at = (date: string, time: string) => {
    const key = `${date} ${time}`
    const known = times.get(key) ?? localToInstant(date, time, zone)
    times.set(key, known)
    return known
  }
  const holidays = new Set(free.map(h => h.date))
  return people.flatMap(person => dates.map((date): TechnicianDay => {
    const hours = holidays.has(date) ? undefined : person.hours[String(weekday(date))]
    const noon = at(date, '12:00')
    const all = byDay.get(`${person.id} ${date}`) ?? []
    const span = { from: starts.get(date)!, to: starts.get(plusDays(date, 1))! }
    const within = (b: { personId: string, from: number, to: number }) => b.personId === person.id && b.from < span.to && b.to > span.from
    return {
      person, technicianId: person.id, name: person.name, date, noon, working: hours ? [{ from: at(date, hours.from), to: at(date, hours.to) }] : [],
      blocked: [...off, ...entries, ...held].filter(within).map(b => ({ from: b.from, to: b.to })), start: placeOf(person), end: placeOf(person), skills: person.skills,
      serves: areas.filter(a => person.territoryIds.includes(a.id)).map(a => a.name), capacity: { morning: hours?.morning ?? 0, afternoon: hours?.afternoon ?? 0 },
      taken: { morning: all.filter(v => Date.parse(v.startAt) < noon).length, afternoon: all.filter(v => Date.parse(v.startAt) >= noon).length },
      stops: all.filter(v => v.id !== options.visitId).map((v) => {
        const planned = Date.parse(v.startAt)
        const begun = v.startedAt ? Date.parse(v.startedAt) : planned
        const running = v.state !== 'planned' && !v.finishedAt
        const end = v.finishedAt ? Date.parse(v.finishedAt) : Math.max(begun + v.durationSeconds * 1000, running ? ctx.now : 0)
        return {
          id: v.id, label: v.customer, startAt: begun, durationSeconds: Math.max(60, Math.round((end - begun) / 1000)), place: placeOf(v), fixed: v.state !== 'planned' || Boolean(v.locked), locked: Boolean(v.locked), state: v.state,
          promiseTo: v.promiseDate && v.promiseTo ? at(v.promiseDate, v.promiseTo) : null,
        }
      }),
    }
  }))
}
