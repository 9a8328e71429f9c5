// The schedule as it is read: one day as it was promised and as it will run; many days as load and capacity.
import { halfDayCapacity } from '../../core/dispatch/halfDayCapacity'
import type { Span } from '../../core/dispatch/plan/instance'
import { invalid } from '../../core/errors/LedgerError'
import { dayBounds, daysBetween, localToInstant, plusDays, weekday } from '../../core/time/zone'
import { HOUR } from '../../core/time/units'
import type { Answer, Query } from '../../shared/api'
import { waitsAt } from '../waiting/at'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { alongWith } from './along'
import { dayFacts, heldOnDay, type DayFacts, type Held } from './dayFacts'
import { driver } from './drives'
import { forecastDay, seenOn } from './forecast'
import { crewIds, unplaced, visitsBetween, type BoardVisit } from './board.queries'
import { technicians, type Technician } from './queries'
import { shapeVisits } from './visitShape'

const iso = (ms: number) => new Date(ms).toISOString()

/** The hours that the board shows: those that people work and visits take, and the usual ones at least. */
function hoursShown(ctx: Ctx, date: string, busy: readonly Span[]): Span {
  const at = (time: string) => localToInstant(date, time, ctx.company.timeZone)
  const first = Math.min(at('07:00'), ...busy.map((s) => s.from))
  const last = Math.max(at('17:00'), ...busy.map((s) => s.to))
  const { to } = dayBounds(date, ctx.company.timeZone)
  return {
    from: Math.floor(first / HOUR) * HOUR,
    to: Math.min(Math.ceil(last / HOUR) * HOUR, to),
  }
}
const spanOf = (v: BoardVisit): Span => {
  const from = Date.parse(v.startAt!)
  return { from, to: from + v.durationSeconds * 1000 }
}
const said = ({ from, to }: Span) => ({ from: iso(from), to: iso(to) })
/** A technician's row on the board: hours, what stands in the way, when they are home. */
function rowOf(
  p: Technician,
  date: string,
  facts: DayFacts,
  home: { at: number; driveSeconds: number } | undefined,
) {
  const shift = facts.shift(p, date)
  return {
    id: p.id,
    name: p.name,
    kind: p.kind,
    goesWith: p.goesWith,
    skills: p.skills,
    working: shift ? [said(shift)] : [],
    // A meeting and a break are shown, and warned of, as time off is.
    timeOff: facts.blocks(p, date).map((b) => ({ ...said(b), reason: b.reason, kind: b.kind })),
    homeAt: home ? iso(home.at) : null,
    homeDriveSeconds: home?.driveSeconds ?? 0,
  }
}
const heldShape = (h: Held) => ({
  callId: h.callId,
  technicianId: h.personId,
  startAt: iso(h.from),
  durationSeconds: h.durationSeconds,
  summary: h.summary || 'Call',
  missing: h.missing,
})
export async function schedule(ctx: Ctx, wanted?: string): Promise<Answer<'schedule'>> {
  const date = wanted || ctx.today
  const { from, to } = dayBounds(date, ctx.company.timeZone)
  const people = await technicians(ctx.tx)
  const visits = await visitsBetween(ctx.tx, from, to)
  const seen = await seenOn(ctx, date)
  const forecast = forecastDay(ctx, people, visits, { drive: await driver(ctx.tx), seen })
  const monday = plusDays(date, -(weekday(date) - 1))
  const facts = await dayFacts(ctx, monday, 7)
  const shifts = people.flatMap((p) => facts.shift(p, date) ?? [])
  const shown = hoursShown(ctx, date, [...shifts, ...visits.map(spanOf)])
  const shaped = await shapeVisits(ctx, visits, forecast.visits)
  const areas = await territories(ctx.tx)
  const along = Object.fromEntries(visits.map((v) => [v.id, alongWith(people, facts, date, v)]))
  return {
    date,
    holiday: facts.holiday(date),
    now: iso(ctx.now),
    dayStart: iso(shown.from),
    dayEnd: iso(shown.to),
    technicians: people.map((p) => ({
      ...rowOf(p, date, facts, forecast.home.get(p.id)),
      territories: areas.filter((a) => p.territoryIds.includes(a.id)).map((a) => a.name),
    })),
    visits: shaped.map((v) => ({ ...v, alongIds: along[v.id] ?? [] })),
    held: (await heldOnDay(ctx, date)).map(heldShape),
    tray: await shapeVisits(ctx, await unplaced(ctx.tx, waitsAt(ctx).sql)),
    week: await load(ctx, people, facts, { first: monday, count: 7 }),
    // The way home too, as the plan counts it.
    driveSeconds: [...shaped, ...forecast.home.values()].reduce((n, d) => n + d.driveSeconds, 0),
    atRisk: shaped.filter((v) => v.atRisk).length,
  }
}
/** Some days from a first one on. */
interface Days {
  first: string
  count: number
}
/** For each day: visits taken and capacity in the morning and in the afternoon. A day off takes its capacity with it. */
async function load(
  ctx: Ctx,
  people: readonly Technician[],
  facts: DayFacts,
  days: Days,
): Promise<Answer<'schedule'>['week']> {
  const { first, count } = days
  const [from, to] = [facts.at(first, '00:00'), facts.at(plusDays(first, count), '00:00')]
  const cells = cellsOf(people, facts, days, await visitsBetween(ctx.tx, from, to))
  return Array.from({ length: count }, (_, i) => {
    const own = cells.filter((c) => c.date === plusDays(first, i))
    const sum = (key: 'morning' | 'afternoon' | 'capacityMorning' | 'capacityAfternoon') =>
      own.reduce((n, c) => n + c[key], 0)
    return {
      date: plusDays(first, i),
      morning: sum('morning'),
      afternoon: sum('afternoon'),
      capacityMorning: sum('capacityMorning'),
      capacityAfternoon: sum('capacityAfternoon'),
    }
  })
}
/** Each technician on each day: what is taken, what they take, and why not. */
function cellsOf(
  people: readonly Technician[],
  facts: DayFacts,
  { first, count }: Days,
  visits: readonly BoardVisit[],
): Answer<'scheduleRange'>['cells'] {
  const byDay = new Map<string, number[]>()
  for (const v of visits) {
    // Whoever goes along is taken as well, as the search for openings counts it.
    for (const id of [v.technicianId, ...crewIds(v)]) {
      const key = `${id} ${facts.dateOf(Date.parse(v.startAt!))}`
      byDay.set(key, [...(byDay.get(key) ?? []), Date.parse(v.startAt!)])
    }
  }
  return people.flatMap((p) =>
    Array.from({ length: count }, (_, i) => {
      const date = plusDays(first, i)
      const noon = facts.at(date, '12:00')
      const starts = byDay.get(`${p.id} ${date}`) ?? []
      const away = facts.blocks(p, date).filter((b) => b.kind === 'off' || b.kind === 'entry')
      const capacity = halfDayCapacity(facts.hours(p, date), away, noon)
      const shift = facts.shift(p, date)
      return {
        technicianId: p.id,
        date,
        morning: starts.filter((s) => s < noon).length,
        afternoon: starts.filter((s) => s >= noon).length,
        capacityMorning: capacity.morning,
        capacityAfternoon: capacity.afternoon,
        away:
          facts.holiday(date) ||
          away.map((b) => b.reason).join(', ') ||
          (shift ? '' : 'does not work'),
        works: shift !== null,
      }
    }),
  )
}
const MOST_DAYS = 42
export async function scheduleRange(
  ctx: Ctx,
  query: Query<'scheduleRange'>,
): Promise<Answer<'scheduleRange'>> {
  const first = query.from || ctx.today
  const days = daysBetween(first, query.to || plusDays(first, 6)) + 1
  if (days < 1) throw invalid('to', 'It ends before it begins.')
  if (days > MOST_DAYS) throw invalid('to', `Not more than ${MOST_DAYS} days at a time.`)
  const people = await technicians(ctx.tx)
  const facts = await dayFacts(ctx, first, days)
  const visits = await visitsBetween(
    ctx.tx,
    facts.at(first, '00:00'),
    facts.at(plusDays(first, days), '00:00'),
  )
  const areas = await territories(ctx.tx)
  return {
    days: Array.from({ length: days }, (_, i) => ({
      date: plusDays(first, i),
      holiday: facts.holiday(plusDays(first, i)),
    })),
    technicians: people.map((p) => ({
      id: p.id,
      name: p.name,
      kind: p.kind,
      skills: p.skills,
      territories: areas.filter((a) => p.territoryIds.includes(a.id)).map((a) => a.name),
    })),
    cells: cellsOf(people, facts, { first, count: days }, visits),
    visits: await shapeVisits(ctx, visits),
    tray: await shapeVisits(ctx, await unplaced(ctx.tx, waitsAt(ctx).sql)),
  }
}
