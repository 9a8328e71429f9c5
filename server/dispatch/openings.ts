// Openings: where a visit fits into the next days, while the caller is on the line.
import { openings as find } from '../../core/dispatch/openings'
import type { OpeningDay, OpeningWish } from '../../core/dispatch/opening'
import { rankOpenings } from '../../core/dispatch/rankOpenings'
import { territoryOf } from '../../core/customers/territoryOf'
import { invalid } from '../../core/errors/LedgerError'
import { localTime, localToInstant } from '../../core/time/zone'
import { twoHoursFrom } from '../../core/visits/visitPromise'
import type { Answer, Body } from '../../shared/api'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { technicianDays } from './days'
import { driver } from './drives'
import { knownTo } from './queries'

type Wanted = Body<'openings'>
type Driver = Awaited<ReturnType<typeof driver>>
/** What is looked for, with what is known of the place and the customer. */
async function wishOf(ctx: Ctx, body: Wanted): Promise<OpeningWish> {
  const site = body.siteId ? await siteById(ctx.tx, body.siteId) : null
  const areas = await territories(ctx.tx)
  const lies = site ? territoryOf(site.postcode, areas)?.name : undefined
  const { durationSeconds, skills, part, mayMove } = body
  return {
    ...{ durationSeconds, skills, part, mayMove },
    place: site?.lat != null ? { lat: site.lat, lon: site.lon! } : null,
    territory: body.territory || (lies ?? ''),
    after: ctx.now,
    known: body.customerId ? await knownTo(ctx.tx, body.customerId) : [],
  }
}
/** Finds all drives around the place at once, before they are asked for one by one. */
function askDrives(drive: Driver, place: OpeningWish['place'], days: readonly OpeningDay[]): void {
  if (!place) return
  const places = days.flatMap((d) => [d.start, d.end, ...d.stops.map((s) => s.place)])
  drive.around(
    place,
    places.filter((p) => p !== null),
  )
}
/** A wished window is a time of day: on each day it is another stretch of time. */
function findIn(days: OpeningDay[], wish: OpeningWish, body: Wanted, by: FindBy) {
  const { drive, zone } = by
  const say = (ms: number) => localTime(ms, zone)
  const { windowFrom, windowTo } = body
  if (!windowFrom && !windowTo) return find(days, wish, drive, say)
  return byDate(days).flatMap(([date, some]) => {
    const from = localToInstant(date, windowFrom ?? '00:00', zone)
    const to = localToInstant(date, windowTo ?? '23:59', zone)
    return find(some, { ...wish, window: { from, to } }, drive, say)
  })
}
interface FindBy {
  drive: Driver
  zone: string
}
type Found = ReturnType<typeof find>[number]
const shape = (
  o: Found,
  technician: string,
  zone: string,
): Answer<'openings'>['items'][number] => ({
  technicianId: o.technicianId,
  technician,
  date: o.date,
  startAt: new Date(o.startAt).toISOString(),
  ...promised(o.startAt, zone),
  extraDriveSeconds: o.extraDriveSeconds,
  dayEndAt: new Date(o.dayEndAt).toISOString(),
  overtimeSeconds: Math.round(o.overtimeSeconds),
  sound: !o.overCapacity && !o.foreign && o.lacks.length === 0,
  score: Math.round(o.score),
  reasons: o.reasons.map((r) => ({ code: r.code, text: r.text.slice(0, LONGEST_REASON) })),
  moves: o.moved.map((m) => ({
    visitId: m.id,
    customer: m.label,
    startAt: new Date(m.startAt).toISOString(),
  })),
})
const LONGEST_REASON = 290
export async function openings(ctx: Ctx, body: Wanted): Promise<Answer<'openings'>> {
  const zone = ctx.company.timeZone
  if (body.windowFrom && body.windowTo && body.windowTo < body.windowFrom)
    throw invalid('windowTo', 'The window ends before it begins.')
  const first = body.from && body.from > ctx.today ? body.from : ctx.today
  const wish = await wishOf(ctx, body)
  const all = await technicianDays(ctx, first, body.days, body)
  const days = body.servedBy ? all.filter((d) => d.serves.includes(body.servedBy)) : all
  const drive = await driver(ctx.tx)
  askDrives(drive, wish.place, days)
  const ranked = rankOpenings(findIn(days, wish, body, { drive, zone }), body.order)
  const names = new Map(days.map((d) => [d.technicianId, d.name]))
  return {
    placeKnown: wish.place !== null,
    territory: wish.territory,
    total: ranked.length,
    items: ranked.slice(0, body.limit).map((o) => shape(o, names.get(o.technicianId)!, zone)),
  }
}
const byDate = (days: OpeningDay[]): [string, OpeningDay[]][] =>
  [...new Set(days.map((d) => d.date))].map((date) => [date, days.filter((d) => d.date === date)])
/** The window that is told to the customer. */
function promised(startAt: number, zone: string): { promiseFrom: string; promiseTo: string } {
  const [promiseFrom, promiseTo] = twoHoursFrom(localTime(startAt, zone))
  return { promiseFrom, promiseTo }
}
