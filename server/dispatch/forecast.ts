// How a day will run: the one place where an arrival is foreseen, for the board, the map, phones, messages and promises alike.
import type { Place } from '../../core/dispatch/greatCircle'
import { placeOf } from '../../core/dispatch/placeOf'
import { predictDay, type DayStop, type Prediction } from '../../core/dispatch/predictDay'
import { workedOrder } from '../../core/dispatch/workedOrder'
import { dayBounds, localToInstant } from '../../core/time/zone'
import { MINUTE } from '../../core/time/units'
import type { Ctx } from '../http/context'
import { crewIds, visitsBetween, type BoardVisit } from './board.queries'
import { driver, type Driver } from './drives'
import { technicianById, type Technician } from './queries'
import { positionsNow } from './roads.queries'

export type Forecast = Prediction & { driveSeconds: number }
/** A position that was told longer ago says where somebody was, not where they are (our own rule). */
const FRESH_MS = 20 * MINUTE
export const isFresh = ({ now }: Pick<Ctx, 'now'>, told: { at: string }): boolean =>
  now - Date.parse(told.at) <= FRESH_MS

export type Seen = Map<string, Awaited<ReturnType<typeof positionsNow>>[number]>
/** Where everybody was seen not long ago, of today; nobody is seen on another day. */
export async function seenOn(ctx: Ctx, date: string): Promise<Seen> {
  if (date !== ctx.today) return new Map()
  const told = (await positionsNow(ctx.tx)).filter((p) => isFresh(ctx, p))
  return new Map(told.map((p) => [p.personId, p]))
}
const instantOf = (iso: string | null) => (iso ? Date.parse(iso) : null)
/** One that is done or driven to has begun; a technician is seen between such visits. */
const hasBegun = (v: BoardVisit) => v.setOffAt !== null || v.startedAt !== null

/** What a drive takes, and where everybody was seen. */
interface Ways {
  drive: Driver
  seen?: Seen
}
/** One person's stops, each with the drive from where they are before it: the stop before, where they were seen, or where the day begins. */
function stopsOf(
  ctx: Ctx,
  person: Technician,
  visits: readonly BoardVisit[],
  { drive, seen = new Map() }: Ways,
) {
  const told = seen.get(person.id)
  const own = visits.filter(
    (v) => v.startAt && (v.technicianId === person.id || crewIds(v).includes(person.id)),
  )
  const ordered = workedOrder(
    own.map((v) => ({
      v,
      begunAt: instantOf(v.setOffAt) ?? instantOf(v.startedAt),
      startAt: Date.parse(v.startAt!),
    })),
  )
  const isIdle = !own.some((v) => ['driving', 'on_site', 'paused'].includes(v.state))
  const next = ordered.find(({ v }) => !hasBegun(v))?.v
  const secondsTo = (from: Place | null, to: Place | null) => (from && to ? drive(from, to) : 0)
  let place = person.start
  const stops = ordered.map(({ v }): DayStop & { own: boolean } => {
    const site = placeOf(v)
    // Between two visits somebody goes on from where they are.
    const from = v === next && isIdle && told ? told : place
    const driveSeconds = secondsTo(from, site)
    place = site ?? place
    const isSeen = told && v.state === 'driving' && site
    return {
      id: v.id,
      own: v.technicianId === person.id,
      state: v.state,
      startAt: Date.parse(v.startAt!),
      durationSeconds: v.durationSeconds,
      driveSeconds,
      promiseEnd:
        v.promiseDate && v.promiseTo
          ? localToInstant(v.promiseDate, v.promiseTo, ctx.company.timeZone)
          : null,
      setOffAt: instantOf(v.setOffAt),
      arrivedAt: instantOf(v.startedAt),
      finishedAt: instantOf(v.finishedAt),
      seen: isSeen ? { at: Date.parse(told.at), driveSeconds: drive(told, site) } : null,
    }
  })
  return { stops, last: place }
}
export interface DayForecast {
  /** of each visit, by the one who leads */
  visits: Map<string, Forecast>
  /** of each visit that somebody goes to, by person, also where they go along */
  of: Map<string, Map<string, Forecast>>
  /** when each is where their day ends */
  home: Map<string, { at: number; driveSeconds: number }>
}
/** Drives and predictions for the stops of every technician, in the order in which they are worked. */
export function forecastDay(
  ctx: Ctx,
  people: readonly Technician[],
  visits: readonly BoardVisit[],
  ways: Ways,
): DayForecast {
  const day: DayForecast = { visits: new Map(), of: new Map(), home: new Map() }
  for (const person of people) {
    const { stops, last } = stopsOf(ctx, person, visits, ways)
    const byId = new Map(stops.map((s) => [s.id, s]))
    const predicted = predictDay(stops, ctx.now)
    const all = new Map<string, Forecast>()
    for (const p of predicted) {
      const { own, driveSeconds } = byId.get(p.id)!
      const forecast = { ...p, driveSeconds }
      all.set(p.id, forecast)
      if (own) day.visits.set(p.id, forecast)
    }
    day.of.set(person.id, all)
    const end = predicted.at(-1)
    const back = end && last && person.end ? ways.drive(last, person.end) : 0
    if (end) day.home.set(person.id, { at: end.finishAt + back * 1000, driveSeconds: back })
  }
  return day
}
/** How one person's day will run, by visit. */
export async function forecastOf(
  ctx: Ctx,
  personId: string | null,
  date: string,
): Promise<Map<string, Forecast>> {
  const person = personId ? await technicianById(ctx.tx, personId) : null
  if (!person) return new Map()
  const { from, to } = dayBounds(date, ctx.company.timeZone)
  const visits = await visitsBetween(ctx.tx, from, to)
  const seen = await seenOn(ctx, date)
  return forecastDay(ctx, [person], visits, { drive: await driver(ctx.tx), seen }).of.get(
    person.id,
  )!
}
