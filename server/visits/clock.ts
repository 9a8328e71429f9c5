// The clock of a visit: one visit open at a time for a person, starting work ends the drive, and times never overlap.
import { visitFacts } from './facts'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { sayDay } from '../../core/time/sayDay'
import { dayBounds, localDate, localTime } from '../../core/time/zone'
import { clockStep, type ClockKind } from '../../core/visits/visitLifecycle'
import { DAY, MINUTE } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { lockPeople } from '../dispatch/index'
import { inviteAgain } from '../dispatch/invitations'
import { helpersOf } from '../dispatch/along'
import { tellOnWay } from '../dispatch/visitMessages'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder } from './account'
import { fieldVisit, isOpen, ownVisit, runOf } from './field'
import {
  moveVisit,
  setVisitState,
  visitById,
  visitsOfTechnician,
  type VisitRow,
} from './visits.queries'
import { helpersRunning, lastClocked, runningClock, startClock, stopClock } from './clock.queries'
import { workOrderById } from './queries'

/** When it happened: a phone without signal says it later; never in the future and not more than a day back. */
function happenedAt(ctx: Ctx, told: string | null | undefined): number {
  const at = told ? Date.parse(told) : ctx.now
  if (at > ctx.now + MINUTE || at < ctx.now - DAY)
    throw conflict('clock_off', 'The time told by the phone is not within the last day.')
  return at
}
function stepFrom(state: VisitRow['state'], act: Body<'clock'>['act']) {
  const step = clockStep(state, act)
  if (step) return step
  const sentence = `This visit is ${state.replace('_', ' ')}; that cannot happen now.`
  throw conflict('not_now', sentence, { state })
}
type Running = Awaited<ReturnType<typeof runningClock>>
/** The other visit that somebody has to finish before their clock may begin at this one, or none. */
async function openElsewhere(
  ctx: Ctx,
  visit: VisitRow & { technicianId: string },
  running: Running,
): Promise<string | null> {
  const { from, to } = dayBounds(ctx.today, ctx.company.timeZone)
  const day = await visitsOfTechnician(ctx.tx, visit.technicianId, { from, to })
  const other = day.find((v) => isOpen(v) && v.id !== visit.id)
  if (other) return other.id
  if (!running?.visitId || running.visitId === visit.id) return null
  // Whoever helps somewhere leaves there when their own clock begins: it is not theirs to finish.
  const elsewhere = await visitById(ctx.tx, running.visitId)
  const helps = elsewhere && elsewhere.technicianId !== visit.technicianId
  return helps ? null : running.visitId
}
/** Nobody is at two places: what is open elsewhere is finished first. */
async function mayBegin(
  ctx: Ctx,
  visit: VisitRow & { technicianId: string },
  running: Running,
): Promise<void> {
  const openVisitId = await openElsewhere(ctx, visit, running)
  if (!openVisitId) return
  const open = await visitById(ctx.tx, openVisitId)
  const work = open && (await workOrderById(ctx.tx, open.workOrderId))
  const what = work ? `${work.number}, ${work.title},` : 'Another visit'
  throw conflict('another_open', `${what} is still open. Finish it first.`, { openVisitId })
}
/** Whether a visit begins that was planned for another day, or for none. */
function beginsOnOtherDay({ company }: Ctx, { state, startAt }: VisitRow, at: number): boolean {
  const planned = startAt && localDate(Date.parse(startAt), company.timeZone)
  return state === 'planned' && planned !== localDate(at, company.timeZone)
}
/** Somebody may well be early by a day; more often it is the wrong visit. */
function askAboutDay(ctx: Ctx, { startAt }: VisitRow): never {
  const { timeZone, locale } = ctx.company
  const day = startAt ? sayDay(localDate(Date.parse(startAt), timeZone), locale) : null
  const sentence = day
    ? `This visit is planned for ${day}. Begin it now all the same?`
    : 'This visit has no time yet. Begin it now all the same?'
  throw conflict('other_day', sentence, { startAt })
}
/** What begins on another day than planned stands on that day from then on, where whoever dispatches sees it. */
async function bringTo(ctx: Ctx, visit: VisitRow, at: number, customerId: string): Promise<void> {
  const { id, technicianId, durationSeconds, workOrderId } = visit
  const { version } = (await visitById(ctx.tx, id))!
  const startAt = Math.floor(at / MINUTE) * MINUTE
  await moveVisit(ctx.tx, id, version, { technicianId, startAt, durationSeconds })
  await inviteAgain(ctx, id)
  const fact = visitFacts.begunOnOtherDay({ planned: visit.startAt })
  await record(ctx, { subject: 'visit', id, workOrderId, customerId, fact })
}
/** Times of one person follow each other: what a phone tells late may not lie within what was clocked since. */
function refuseOverlap(ctx: Ctx, visit: VisitRow, at: number, until: number): never {
  const { timeZone, locale } = ctx.company
  const [day, told] = [localDate(until, timeZone), localDate(at, timeZone)]
  const who = visit.technician?.split(' ')[0] ?? 'This person'
  const since = `${localTime(until, timeZone)}${day === told ? '' : ` on ${sayDay(day, locale)}`}`
  const sentence = `${who} was clocked until ${since} already; ${localTime(at, timeZone)} lies before that.`
  throw invalid('at', sentence, 'clock_overlap')
}
type Led = VisitRow & { technicianId: string }
type Step = ReturnType<typeof stepFrom>
/** The clock of whoever leads goes over to this step, and those of whoever goes along. */
async function turnClock(ctx: Ctx, visit: Led, step: Step, at: number): Promise<void> {
  const { id, technicianId } = visit
  const running = await runningClock(ctx.tx, technicianId)
  if (step.clock) await mayBegin(ctx, visit, running)
  const until = Math.max(running?.startedAt ?? 0, await lastClocked(ctx.tx, technicianId))
  if (at < until) refuseOverlap(ctx, visit, at, until)
  if (running) await stopClock(ctx.tx, running.id, at)
  const own = { personId: technicianId, visitId: id, kind: step.clock }
  if (own.kind) await startClock(ctx.tx, { id: ctx.id(), ...own, kind: own.kind, at })
  await helpersClock(ctx, visit, step.clock, at)
}
export async function clock(
  ctx: Ctx,
  id: string,
  body: Body<'clock'>,
): Promise<Answer<'fieldVisit'>> {
  // Whose clock it is, before the visit: as whoever moves it, or mends a time, locks them.
  await lockPeople(ctx.tx, [(await visitById(ctx.tx, id))?.technicianId ?? null])
  const visit = await ownVisit(ctx, id, true, true)
  const { technicianId, workOrderId } = visit
  if (!technicianId) throw conflict('no_technician', 'Nobody is set for this visit yet.')
  const at = happenedAt(ctx, body.at)
  const step = stepFrom(visit.state, body.act)
  const isOfOtherDay = beginsOnOtherDay(ctx, visit, at)
  if (isOfOtherDay && !body.otherDay) askAboutDay(ctx, visit)
  await turnClock(ctx, { ...visit, technicianId }, step, at)
  await setVisitState(ctx.tx, id, step.state, {
    startedAt: step.state === 'on_site' ? at : null,
    finishedAt: ['finished', 'no_access'].includes(step.state) ? at : null,
  })
  const { customerId } = (await workOrderById(ctx.tx, workOrderId))!
  const state = { from: visit.state, to: step.state }
  const fact = visitFacts.clocked({ act: body.act, state })
  await record(ctx, { subject: 'visit', id, workOrderId, customerId, fact })
  if (isOfOtherDay) await bringTo(ctx, visit, at, customerId)
  await refreshWorkOrder(ctx, workOrderId)
  if (body.act === 'set_off') {
    const now = (await visitById(ctx.tx, id))!
    await tellOnWay(ctx, now, (await runOf(ctx, now))?.arriveAt ?? at)
  }
  return fieldVisit(ctx, id)
}
/** Whoever goes along is clocked with the one whose visit it is, unless their own clock runs somewhere else. */
async function helpersClock(
  ctx: Ctx,
  visit: VisitRow,
  kind: ClockKind | null,
  at: number,
): Promise<void> {
  // All who were there, also whoever was taken off the visit since.
  for (const running of await helpersRunning(ctx.tx, visit.id, visit.technicianId))
    await stopClock(ctx.tx, running.id, at)
  if (!kind) return
  for (const personId of await helpersOf(ctx, visit)) {
    if (!(await runningClock(ctx.tx, personId)))
      await startClock(ctx.tx, {
        id: ctx.id(),
        personId,
        visitId: visit.id,
        kind,
        at: Math.max(at, await lastClocked(ctx.tx, personId)),
      })
  }
}
