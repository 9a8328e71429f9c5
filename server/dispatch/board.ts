// The schedule as it is read: one day as it was promised and as it will run; many days as load and capacity.
import { halfDayCapacity } from '../../core/dispatch/halfDayCapacity'
import { placeOf } from '../../core/dispatch/placeOf'
import { predictDay } from '../../core/dispatch/predictDay'
import { invalid } from '../../core/errors/LedgerError'
import { dayBounds, daysBetween, localToInstant, plusDays, weekday } from '../../core/time/zone'
import { HOUR } from '../../core/time/units'
import type { Answer, Query } from '../../shared/api'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { alongWith } from './along'
import { dayFacts, heldOnDay, type DayFacts } from './dayFacts'
import { driver, type Driver } from './drives'
import { crewIds, unplaced, visitsBetween, type BoardVisit } from './board.queries'
import { technicians, type Technician } from './queries'
import { shapeVisits, type Forecast } from './visitShape'

const iso = (ms: number) => new Date(ms).toISOString()

/** Drives and predictions for the stops of every technician, in order; and when each is where the day ends. */
export function forecastDay(
  ctx: Ctx,
  people: readonly Technician[],
  visits: readonly BoardVisit[],
  drive: Driver,
): { visits: Map<string, Forecast>; home: Map<string, { at: number; driveSeconds: number }> } {
  const out = new Map<string, Forecast>()
  const home = new Map<string, { at: number; driveSeconds: number }>()
  for (const person of people) {
    let place = person.start
    const stops = visits
      .filter((v) => v.startAt && (v.technicianId === person.id || crewIds(v).includes(person.id)))
      .map((v) => {
        const site = placeOf(v)
        const seconds = place && site ? drive(place, site) : 0
        place = site ?? place
        return {
          id: v.id,
          own: v.technicianId === person.id,
          state: v.state,
          startAt: Date.parse(v.startAt!),
          durationSeconds: v.durationSeconds,
          driveSeconds: seconds,
          promiseEnd:
            v.promiseDate && v.promiseTo
              ? localToInstant(v.promiseDate, v.promiseTo, ctx.company.timeZone)
              : null,
          setOffAt: v.setOffAt ? Date.parse(v.setOffAt) : null,
          arrivedAt: v.startedAt ? Date.parse(v.startedAt) : null,
          finishedAt: v.finishedAt ? Date.parse(v.finishedAt) : null,
        }
      })
    const predicted = predictDay(stops, ctx.now)
    for (const p of predicted) {
      const stop = stops.find((s) => s.id === p.id)!
      if (stop.own) out.set(p.id, { ...p, driveSeconds: stop.driveSeconds })
    }
    const last = predicted.at(-1)
    const back = last && place && person.end ? drive(place, person.end) : 0
    if (last) home.set(person.id, { at: last.finishAt + back * 1000, driveSeconds: back })
  }
  return { visits: out, home }
}
export async function schedule(ctx: Ctx, wanted?: string): Promise<Answer<'schedule'>> {
  const date = wanted || ctx.today
  const zone = ctx.company.timeZone
  const { from, to } = dayBounds(date, zone)
  const people = await technicians(ctx.tx)
  const visits = await visitsBetween(ctx.tx, from, to)
  const forecast = forecastDay(ctx, people, visits, await driver(ctx.tx))
  const monday = plusDays(date, -(weekday(date) - 1))
  const facts = await dayFacts(ctx, monday, 7)
  const working = people.map((p) => facts.shift(p, date))
  const edges = [
    ...working.flatMap((w) => w ?? []),
    ...visits.map((v) => ({
      from: Date.parse(v.startAt!),
      to: Date.parse(v.startAt!) + v.durationSeconds * 1000,
    })),
  ]
  const dayStart =
    Math.floor(Math.min(localToInstant(date, '07:00', zone), ...edges.map((e) => e.from)) / HOUR) *
    HOUR
  const dayEnd =
    Math.ceil(Math.max(localToInstant(date, '17:00', zone), ...edges.map((e) => e.to)) / HOUR) *
    HOUR
  const shaped = await shapeVisits(ctx, visits, forecast.visits)
  const areas = await territories(ctx.tx)
  const along = Object.fromEntries(visits.map((v) => [v.id, alongWith(people, facts, date, v)]))
  return {
    date,
    holiday: facts.holiday(date),
    now: iso(ctx.now),
    dayStart: iso(dayStart),
    dayEnd: iso(Math.min(dayEnd, to)),
    technicians: people.map((p, i) => ({
      id: p.id,
      name: p.name,
      kind: p.kind,
      goesWith: p.goesWith,
      skills: p.skills,
      territories: areas.filter((a) => p.territoryIds.includes(a.id)).map((a) => a.name),
      working: working[i] ? [{ from: iso(working[i].from), to: iso(working[i].to) }] : [],
      // A meeting and a break are shown, and warned of, as time off is.
      timeOff: facts
        .blocks(p, date)
        .map((b) => ({ from: iso(b.from), to: iso(b.to), reason: b.reason, kind: b.kind })),
      homeAt: forecast.home.has(p.id) ? iso(forecast.home.get(p.id)!.at) : null,
      homeDriveSeconds: forecast.home.get(p.id)?.driveSeconds ?? 0,
    })),
    visits: shaped.map((v) => ({ ...v, alongIds: along[v.id] ?? [] })),
    held: (await heldOnDay(ctx, date)).map((h) => ({
      callId: h.callId,
      technicianId: h.personId,
      startAt: iso(h.from),
      durationSeconds: h.durationSeconds,
      summary: h.summary || 'Call',
      missing: h.missing,
    })),
    tray: await shapeVisits(ctx, await unplaced(ctx.tx, ctx.today)),
    week: await load(ctx, people, facts, monday, 7),
    driveSeconds: shaped.reduce((sum, v) => sum + v.driveSeconds, 0),
    atRisk: shaped.filter((v) => v.atRisk).length,
  }
}
/** For each day: visits taken and capacity in the morning and in the afternoon. A day off takes its capacity with it. */
async function load(
  ctx: Ctx,
  people: readonly Technician[],
  facts: DayFacts,
  first: string,
  count: number,
): Promise<Answer<'schedule'>['week']> {
  const cells = cellsOf(
    ctx,
    people,
    facts,
    first,
    count,
    await visitsBetween(
      ctx.tx,
      facts.at(first, '00:00'),
      facts.at(plusDays(first, count), '00:00'),
    ),
  )
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
  ctx: Ctx,
  people: readonly Technician[],
  facts: DayFacts,
  first: string,
  count: number,
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
    cells: cellsOf(ctx, people, facts, first, days, visits),
    visits: await shapeVisits(ctx, visits),
    tray: await shapeVisits(ctx, await unplaced(ctx.tx, ctx.today)),
  }
}
