// What is promised of a visit moves with it: kept, another one, or none for now; and who has to be told of it.
import { invalid } from '../../core/errors/LedgerError'
import { dayBounds, localDate } from '../../core/time/zone'
import {
  holdsPromise,
  isSamePromise,
  promiseFor,
  type VisitPromise,
} from '../../core/visits/visitPromise'
import type { Ctx } from '../http/context'
import { letBeAboutVisit } from '../messages/queries'
import { setPromise, setTold } from '../visits/index'
import { promiseOf, type VisitRow } from '../visits/visits.queries'
import { boardVisit, visitsBetween } from './board.queries'
import { driver } from './drives'
import { forecastDay, seenOn } from './forecast'
import { technicianById } from './queries'

/** Where a visit would stand. */
interface Place {
  technicianId: string
  startAt: number
  durationSeconds: number
}
/** When somebody is to be expected there, were the visit at that place: from where they are and what they have before it. */
async function expectedAt(ctx: Ctx, visitId: string, place: Place): Promise<number> {
  const { technicianId, startAt, durationSeconds } = place
  const person = await technicianById(ctx.tx, technicianId)
  const date = localDate(startAt, ctx.company.timeZone)
  const { from, to } = dayBounds(date, ctx.company.timeZone)
  const own = await boardVisit(ctx.tx, visitId)
  if (!person || !own) return startAt
  const others = (await visitsBetween(ctx.tx, from, to)).filter(({ id }) => id !== visitId)
  const there = { ...own, technicianId, durationSeconds, startAt: new Date(startAt).toISOString() }
  const day = [...others, there].sort((a, b) => Date.parse(a.startAt!) - Date.parse(b.startAt!))
  const ways = { drive: await driver(ctx.tx), seen: await seenOn(ctx, date) }
  const { visits } = forecastDay(ctx, [person], day, ways)
  return visits.get(visitId)?.arriveAt ?? startAt
}
/** What may be done about a promise that the new place breaks: what it is, and what could be promised instead. */
export async function askedOf(ctx: Ctx, visit: VisitRow, place: Place) {
  const promise = promiseOf(visit)
  if (!promise || holdsPromise(promise, place.startAt, ctx.company.timeZone)) return null
  const expected = await expectedAt(ctx, visit.id, place)
  return { promise, proposed: promiseFor(place.startAt, expected, ctx.company.timeZone) }
}
/** A promise that can be kept: its window ends after it begins. */
function checkPromise(promise: VisitPromise | null): void {
  if (promise?.from && (!promise.to || promise.to <= promise.from))
    throw invalid('promise.to', 'The window ends before it begins.')
}
/**
 * Promises something else of a visit, or nothing for now. What was written of it and is still under way is not sent any
 * more; where the customer knows already, nobody has to tell them.
 */
export async function promiseAnew(
  ctx: Ctx,
  visit: VisitRow,
  promise: VisitPromise | null,
  known: boolean,
): Promise<void> {
  checkPromise(promise)
  if (!isSamePromise(promiseOf(visit), promise)) {
    await setPromise(ctx.tx, visit.id, promise)
    await letBeAboutVisit(ctx.tx, visit.id)
  }
  if (known) await setTold(ctx.tx, visit.id, promise)
}
