// Technicians' days as the planner and the search for openings see them: hours, what is booked, what blocks, who can what.
import { group } from 'd3'
import type { OpeningDay, OpeningStop } from '../../core/dispatch/opening'
import type { Span } from '../../core/dispatch/plan/instance'
import { placeOf } from '../../core/dispatch/placeOf'
import { skillsOn } from '../../core/dispatch/skillsOn'
import { plusDays } from '../../core/time/zone'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { dayFacts, heldAgainst, takenBy, type DayFacts } from './dayFacts'
import { crewIds, stopsBetween } from './board.queries'
import { technicians, type Technician } from './queries'

/** `helps` marks a stop where somebody goes along: it is fixed, and it counts for the one whose visit it is. */
export type DayStop = OpeningStop & { locked: boolean; state: string; helps: boolean }
export interface TechnicianDay extends OpeningDay {
  person: Technician
  stops: DayStop[]
  rests: Span[]
}

/** The person of a day: where they start and end, what they can, whom they serve. */
const whoOn = (
  person: Technician,
  date: string,
  areas: readonly { id: string; name: string }[],
) => ({
  person,
  technicianId: person.id,
  name: person.name,
  date,
  start: person.start,
  end: person.end,
  skills: skillsOn(person, date),
  serves: areas.filter((a) => person.territoryIds.includes(a.id)).map((a) => a.name),
})
/** The hours of a day: worked, blocked, how much fits into its halves. */
function hoursOn(person: Technician, date: string, facts: DayFacts) {
  const hours = facts.hours(person, date)
  const shift = facts.shift(person, date)
  const blocks = facts.blocks(person, date)
  return {
    noon: facts.at(date, '12:00'),
    working: shift ? [shift] : [],
    blocked: blocks.map(({ from, to, kind }) => ({ from, to, rest: kind === 'break' })),
    rests: blocks.filter((b) => b.kind === 'break').map(({ from, to }) => ({ from, to })),
    capacity: { morning: hours?.morning ?? 0, afternoon: hours?.afternoon ?? 0 },
  }
}
type Stop = Awaited<ReturnType<typeof stopsBetween>>[number] & { helps: boolean }
function stopOf(ctx: Ctx, facts: DayFacts, v: Stop): DayStop {
  const { startAt, endAt } = takenBy(v, ctx.now)
  // Where several go, the time of one is the time of all: it stays.
  const locked = v.locked || v.crew !== null
  return {
    id: v.id,
    label: v.customer,
    startAt,
    durationSeconds: Math.max(60, Math.round((endAt - startAt) / 1000)),
    place: placeOf(v),
    fixed: v.state !== 'planned' || locked,
    locked,
    state: v.state,
    helps: v.helps,
    promiseTo: v.promiseDate && v.promiseTo ? facts.at(v.promiseDate, v.promiseTo) : null,
  }
}
/** The days of all who can be booked by themselves, from a date on. `callId` names the call that asks: what it holds itself is free for it. */
export async function technicianDays(
  ctx: Ctx,
  first: string,
  count: number,
  options: { callId?: string | null; visitId?: string | null; technicianId?: string | null } = {},
): Promise<TechnicianDay[]> {
  const { tx } = ctx
  const dates = Array.from({ length: count }, (_, i) => plusDays(first, i))
  const facts = await dayFacts(ctx, first, count, await heldAgainst(ctx, options.callId ?? null))
  // Who always goes with somebody is never sent alone.
  const people = (await technicians(tx)).filter((p) =>
    options.technicianId ? p.id === options.technicianId : p.goesWith === null,
  )
  const [visits, areas] = [
    await stopsBetween(tx, facts.at(first, '00:00'), facts.at(plusDays(first, count), '00:00')),
    await territories(tx),
  ]
  const byDay = group(
    visits.flatMap((v) =>
      [v.technicianId, ...crewIds(v)].map((personId) => ({
        ...v,
        helps: personId !== v.technicianId,
        day: `${personId} ${facts.dateOf(Date.parse(v.startAt))}`,
      })),
    ),
    (v) => v.day,
  )
  const dayOf = (person: Technician, date: string): TechnicianDay => {
    const all = byDay.get(`${person.id} ${date}`) ?? []
    const noon = facts.at(date, '12:00')
    const morning = all.filter((v) => Date.parse(v.startAt) < noon).length
    return {
      ...whoOn(person, date, areas),
      ...hoursOn(person, date, facts),
      drivesOutside: ctx.company.drivesOutside,
      taken: { morning, afternoon: all.length - morning },
      stops: all.filter((v) => v.id !== options.visitId).map((v) => stopOf(ctx, facts, v)),
    }
  }
  return people.flatMap((person) => dates.map((date) => dayOf(person, date)))
}
