// The clock is mended: a stretch of time that was not clocked is entered, one that was clocked wrongly is corrected or taken out, each with its reason.
import { CLOCK_KINDS, timeFault, type Stretch, type TimeFault } from '../../core/hours/mendTime'
import { conflict, forbidden, invalid, notFound } from '../../core/errors/LedgerError'
import { sayDay } from '../../core/time/sayDay'
import { dayBounds, localDate, localTime } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { lockPeople } from '../dispatch/index'
import { technicianById } from '../dispatch/queries'
import { signedIn, type Ctx } from '../http/context'
import { limitsOf, overLimit, roleKey } from '../access/limits'
import type { Fact } from '../http/facts'
import { record } from '../http/queries'
import { refreshWorkOrder, visibleWorkOrder } from './account'
import {
  changeInterval,
  insertInterval,
  intervalById,
  intervalsOfPerson,
  removeInterval,
  type IntervalRow,
} from './clock.queries'
import { visitFacts } from './facts'
import { workOrderPaper } from './views'
import { followClock, visitById, type VisitRow } from './visits.queries'

type Paper = Answer<'workOrder'>
const iso = (ms: number | null) => (ms === null ? null : new Date(ms).toISOString())
interface Mending {
  person: Pick<IntervalRow, 'person' | 'kind'>
  was?: Stretch
  becomes?: Stretch
}
/** A technician mends their own time alone; the office that of anybody. */
function mustBeOwn(ctx: Ctx, personId: string): void {
  const { role, id } = signedIn(ctx)
  if (role === 'technician' && personId !== id) throw forbidden('This is not your time.')
}
/** A technician mends the time of today as far as the firm lets them; beyond that, somebody else says yes to it. */
function mustBeWithin(ctx: Ctx, { person, was, becomes }: Mending): void {
  const me = signedIn(ctx)
  const { from } = dayBounds(ctx.today, ctx.company.timeZone)
  const isOld =
    me.role === 'technician' && [was, becomes].some((time) => time && time.startedAt < from)
  if (!isOld && limitsOf(ctx, roleKey(me)).mendsTime) return
  const say = (time: Stretch | undefined) =>
    time ? sayStretch(ctx, { ...time, kind: person.kind }) : 'none'
  throw overLimit(
    isOld
      ? 'Times of another day are not yours alone to correct.'
      : 'Times are not corrected alone.',
    `time of ${person.person}: ${say(becomes)} instead of ${say(was)}`,
  )
}
const FAULTS: Readonly<Record<Exclude<TimeFault, 'overlap'>, string>> = {
  ends_before: 'It ends before it begins.',
  not_yet: 'That has not been yet.',
  too_long: 'That is more than sixteen hours on end.',
}
/** Refuses what cannot have been. Times of one person never overlap: which one stands there is said. */
async function check(ctx: Ctx, personId: string, wanted: Stretch, except: string): Promise<void> {
  const all = (await intervalsOfPerson(ctx.tx, personId, wanted)).filter((i) => i.id !== except)
  const fault = timeFault(wanted, all, ctx.now)
  if (fault === 'overlap') {
    const other = all.find((o) => timeFault(wanted, [o], ctx.now) === 'overlap')!
    throw invalid('from', `This overlaps ${sayStretch(ctx, other)}.`, 'clock_overlap')
  }
  if (fault)
    throw invalid(fault === 'not_yet' && wanted.startedAt > ctx.now ? 'from' : 'to', FAULTS[fault])
}
function sayStretch(
  { company }: Ctx,
  { kind, startedAt, endedAt }: Stretch & Pick<IntervalRow, 'kind'>,
): string {
  const at = (ms: number) => localTime(ms, company.timeZone)
  const day = sayDay(localDate(startedAt, company.timeZone), company.locale)
  return `${CLOCK_KINDS[kind]}, ${day} ${at(startedAt)} to ${endedAt === null ? 'now' : at(endedAt)}`
}
/** What follows from mended time: when the visit began and ended, the account, the history. */
async function mended(ctx: Ctx, visit: VisitRow, fact: Fact): Promise<Paper> {
  const { id, workOrderId } = visit
  await followClock(ctx.tx, id)
  const { customerId } = await visibleWorkOrder(ctx, workOrderId, true)
  await record(ctx, { subject: 'visit', id, workOrderId, customerId, fact })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
async function visitOf(ctx: Ctx, id: string): Promise<VisitRow> {
  const visit = await visitById(ctx.tx, id, true)
  if (!visit) throw notFound('visit')
  await visibleWorkOrder(ctx, visit.workOrderId)
  return visit
}
/** Time that nobody clocked: at a visit, on the way to it, fetching a part for it. */
export async function enterTime(
  ctx: Ctx,
  visitId: string,
  body: Body<'enterTime'>,
): Promise<Paper> {
  const { id, personId, kind, reason } = body
  await lockPeople(ctx.tx, [personId])
  const visit = await visitOf(ctx, visitId)
  const person = await technicianById(ctx.tx, personId)
  if (!person) throw invalid('personId', 'This person cannot be booked.')
  const wanted = { startedAt: Date.parse(body.from), endedAt: Date.parse(body.to) }
  mustBeOwn(ctx, personId)
  const same = await intervalById(ctx.tx, id)
  if (same && same.visitId !== visitId)
    throw invalid('id', 'This identifier belongs to something else.')
  // The same request again: it is there already.
  if (same) return workOrderPaper(ctx, visit.workOrderId)
  await check(ctx, personId, wanted, id)
  mustBeWithin(ctx, { person: { person: person.name, kind }, becomes: wanted })
  await insertInterval(ctx.tx, { id, personId, visitId, kind, ...wanted })
  const now = { from: iso(wanted.startedAt)!, to: iso(wanted.endedAt) }
  const fact = visitFacts.timeEntered({ person: person.name, kind, now, reason })
  return mended(ctx, visit, fact)
}
/** Time that was clocked wrongly, as it was read: corrected, or taken out. One that still runs goes on to run. */
export async function mendTime(ctx: Ctx, id: string, body: Body<'mendTime'>): Promise<Paper> {
  const seen = await intervalById(ctx.tx, id)
  if (!seen?.visitId) throw notFound('time')
  await lockPeople(ctx.tx, [seen.personId])
  const visit = await visitOf(ctx, seen.visitId)
  const known = await intervalById(ctx.tx, id)
  if (!known) throw notFound('time')
  const was = { from: iso(known.startedAt)!, to: iso(known.endedAt) }
  const isAsRead =
    Date.parse(body.was.from) === known.startedAt &&
    (body.was.to === null ? null : Date.parse(body.was.to)) === known.endedAt
  if (!isAsRead)
    throw conflict('stale', 'This time was changed meanwhile.', { current: was, yours: body.was })
  mustBeOwn(ctx, known.personId)
  const said = { person: known.person, kind: known.kind, was, reason: body.reason }
  if (body.removed) {
    if (known.endedAt === null)
      throw conflict('clock_running', 'This clock runs: it is stopped where it runs.')
    mustBeWithin(ctx, { person: known, was: known })
    await removeInterval(ctx.tx, id)
    return mended(ctx, visit, visitFacts.timeTakenOut(said))
  }
  const startedAt = Date.parse(body.from)
  const endedAt = body.to === null || known.endedAt === null ? known.endedAt : Date.parse(body.to)
  const wanted = { startedAt, endedAt }
  await check(ctx, known.personId, wanted, id)
  mustBeWithin(ctx, { person: { ...known, kind: body.kind }, was: known, becomes: wanted })
  await changeInterval(ctx.tx, id, { ...wanted, kind: body.kind })
  const now = { from: iso(startedAt)!, to: iso(endedAt) }
  const fact = visitFacts.timeMended({ ...said, now, becomes: body.kind })
  return mended(ctx, visit, fact)
}
