// The technician's day and the clock of a visit: one visit open at a time, starting work ends the drive.
import { visitFacts } from './facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { workedSeconds } from '../../core/hours/workedSeconds'
import { sayDay } from '../../core/time/sayDay'
import { dayBounds, localDate, localTime } from '../../core/time/zone'
import {
  clockActsFrom,
  clockStep,
  isUnderWay,
  type ClockKind,
} from '../../core/visits/visitLifecycle'
import { DAY, MINUTE } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { driver, type Driver } from '../dispatch/drives'
import { helpersOf } from '../dispatch/along'
import { technicianById } from '../dispatch/queries'
import { tellOnWay } from '../dispatch/visitMessages'
import { may, signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder, visibleWorkOrder } from './account'
import { workOrderPaper } from './views'
import {
  fieldRow,
  fieldRows,
  goesAlong,
  setFindings,
  setNextStep,
  notBegunRows,
  setVisitState,
  visitById,
  visitsOfTechnician,
  visitsOfWork,
  type FieldRow,
  type VisitRow,
} from './visits.queries'
import {
  helpersRunning,
  intervalsOf,
  lastClocked,
  runningClock,
  startClock,
  stopClock,
} from './clock.queries'
import { workOrderById } from './queries'

type FieldVisit = Answer<'fieldDay'>['visits'][number]
interface Spot {
  lat: number | null
  lon: number | null
}
/** A visit as a phone shows it, with the drive from where its technician was before. */
function shape(ctx: Ctx, r: FieldRow, from: Spot | null, drive: Driver): FieldVisit {
  const seconds =
    from?.lat != null && r.lat != null
      ? drive({ lat: from.lat, lon: from.lon! }, { lat: r.lat, lon: r.lon! })
      : 0
  return {
    id: r.id,
    workOrderId: r.workOrderId,
    number: r.number,
    title: r.title,
    customer: r.customer,
    place: [r.site, r.line1, r.town].filter(Boolean).join(', '),
    accessNote: r.accessNote,
    contact: r.contact.name || r.customer,
    phone: r.contact.phone || r.customerPhone,
    promise: r.promiseFrom ? `${r.promiseFrom}–${r.promiseTo}` : '',
    startAt: r.startAt,
    durationSeconds: r.durationSeconds,
    driveSeconds: seconds,
    lead:
      ctx.actor && r.technicianId !== ctx.actor.id && ctx.actor.role === 'technician'
        ? (r.technician ?? '')
        : '',
    state: r.state,
    total: r.net ? toMoney(r.net, r.currency) : null,
    officeNote: r.officeNote,
  }
}
const isOpen = (v: Pick<VisitRow, 'state'>) => isUnderWay(v.state)

/** How long a visit that nobody began stays with whoever should have. */
const LOOK_BACK_DAYS = 14
export async function fieldDay(ctx: Ctx, date: string): Promise<Answer<'fieldDay'>> {
  const me = signedIn(ctx)
  const { from, to } = dayBounds(date, ctx.company.timeZone)
  const rows = await fieldRows(ctx.tx, me.id, from, to)
  const person = await technicianById(ctx.tx, me.id)
  const drive = await driver(ctx.tx)
  const home = person?.start ?? null
  const visits = rows.map((r, i) => shape(ctx, r, i ? rows[i - 1]! : home, drive))
  const before = await notBegunRows(ctx.tx, me.id, from - LOOK_BACK_DAYS * DAY, from)
  return {
    date,
    now: new Date(ctx.now).toISOString(),
    visits,
    notBegun: before.map((r) => shape(ctx, r, null, drive)),
    openVisitId: rows.find((v) => isOpen(v) && v.technicianId === me.id)?.id ?? null,
  }
}

async function ownVisit(ctx: Ctx, id: string, lock = false, act = false): Promise<VisitRow> {
  const visit = await visitById(ctx.tx, id, lock)
  const me = signedIn(ctx)
  if (!visit) throw notFound('visit')
  // Whoever goes along reads everything; the clock is kept by the one whose visit it is, for all who are there.
  if (
    me.role === 'technician' &&
    visit.technicianId !== me.id &&
    (act || !(await goesAlong(ctx.tx, me.id, id)))
  )
    throw notFound('visit')
  return visit
}
/** Whether somebody may act on the clock of a visit: the one whose visit it is, or the office; nobody where nobody is set. */
function keepsClock(ctx: Ctx, { technicianId }: VisitRow): boolean {
  const me = signedIn(ctx)
  const own = me.role !== 'technician' || technicianId === me.id
  return own && technicianId !== null && may(ctx, 'visits.clock')
}
/** Where somebody comes from to a visit: from the one before it that day, or from where their day begins. */
async function originOf(ctx: Ctx, visit: VisitRow, start: Spot | null): Promise<Spot | null> {
  if (!visit.technicianId) return start
  const { from, to } = dayBounds(ctx.today, ctx.company.timeZone)
  const day = await fieldRows(ctx.tx, visit.technicianId, from, to)
  return day[day.findIndex((v) => v.id === visit.id) - 1] ?? start
}
/** What was proposed at the closed door, if the visit still waits that comes again for it. */
async function proposedFor(ctx: Ctx, { id, state, workOrderId }: VisitRow) {
  if (state !== 'no_access') return null
  const again = (await visitsOfWork(ctx.tx, workOrderId)).find((v) => v.againOf === id)
  return again ? { step: again.nextStep, note: again.note } : null
}
export async function fieldVisit(ctx: Ctx, id: string): Promise<Answer<'fieldVisit'>> {
  const visit = await ownVisit(ctx, id)
  const person = visit.technicianId ? await technicianById(ctx.tx, visit.technicianId) : null
  const { from, to } = dayBounds(ctx.today, ctx.company.timeZone)
  const day = visit.technicianId
    ? await visitsOfTechnician(ctx.tx, visit.technicianId, { from, to })
    : []
  // The clock that is shown is that of the one whose visit it is.
  const intervals = (await intervalsOf(ctx.tx, [id])).filter(
    (i) => i.personId === visit.technicianId,
  )
  const running = intervals.find((i) => i.endedAt === null)
  const seconds = workedSeconds(intervals, ctx.now)
  const origin = await originOf(ctx, visit, person?.start ?? null)
  return {
    visit: shape(ctx, (await fieldRow(ctx.tx, id))!, origin, await driver(ctx.tx)),
    findings: visit.findings,
    version: visit.version,
    clock: {
      kind: running?.kind ?? null,
      since: running ? new Date(running.startedAt).toISOString() : null,
      driveSeconds: seconds.drive,
      siteSeconds: seconds.on_site,
    },
    openVisitId: day.find(isOpen)?.id ?? null,
    acts: keepsClock(ctx, visit) ? clockActsFrom(visit.state) : [],
    proposed: await proposedFor(ctx, visit),
    workOrder: await workOrderPaper(ctx, visit.workOrderId),
  }
}

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
/** Times of one person follow each other: what a phone tells late may not lie within what was clocked since. */
function refuseOverlap(ctx: Ctx, visit: VisitRow, at: number, until: number): never {
  const { timeZone, locale } = ctx.company
  const [day, told] = [localDate(until, timeZone), localDate(at, timeZone)]
  const who = visit.technician?.split(' ')[0] ?? 'This person'
  const since = `${localTime(until, timeZone)}${day === told ? '' : ` on ${sayDay(day, locale)}`}`
  const sentence = `${who} was clocked until ${since} already; ${localTime(at, timeZone)} lies before that.`
  throw invalid('at', sentence, 'clock_overlap')
}
export async function clock(
  ctx: Ctx,
  id: string,
  body: Body<'clock'>,
): Promise<Answer<'fieldVisit'>> {
  const visit = await ownVisit(ctx, id, true, true)
  const { technicianId, workOrderId } = visit
  if (!technicianId) throw conflict('no_technician', 'Nobody is set for this visit yet.')
  const at = happenedAt(ctx, body.at)
  const step = stepFrom(visit.state, body.act)
  const running = await runningClock(ctx.tx, technicianId)
  if (step.clock) await mayBegin(ctx, { ...visit, technicianId }, running)
  const until = Math.max(running?.startedAt ?? 0, await lastClocked(ctx.tx, technicianId))
  if (at < until) refuseOverlap(ctx, visit, at, until)
  if (running) await stopClock(ctx.tx, running.id, at)
  const own = { personId: technicianId, visitId: id, kind: step.clock }
  if (own.kind) await startClock(ctx.tx, { id: ctx.id(), ...own, kind: own.kind, at })
  await helpersClock(ctx, visit, step.clock, at)
  await setVisitState(ctx.tx, id, step.state, {
    startedAt: step.state === 'on_site' ? at : null,
    finishedAt: ['finished', 'no_access'].includes(step.state) ? at : null,
  })
  const { customerId } = (await workOrderById(ctx.tx, workOrderId))!
  const state = { from: visit.state, to: step.state }
  const fact = visitFacts.clocked({ act: body.act, state })
  await record(ctx, { subject: 'visit', id, workOrderId, customerId, fact })
  await refreshWorkOrder(ctx, workOrderId)
  const answer = await fieldVisit(ctx, id)
  if (body.act === 'set_off') await tellOnWay(ctx, visit, at + answer.visit.driveSeconds * 1000)
  return answer
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
/** What is to be done after nobody let them in: said at the door, read by whoever finds the next time. */
export async function proposeNext(
  ctx: Ctx,
  id: string,
  { step, note }: Body<'proposeNext'>,
): Promise<Answer<'fieldVisit'>> {
  const visit = await ownVisit(ctx, id, true, true)
  if (visit.state !== 'no_access')
    throw conflict('not_now', 'Somebody let them in: there is nothing to propose.')
  const { workOrderId } = visit
  const { customerId } = (await workOrderById(ctx.tx, workOrderId))!
  await setNextStep(ctx.tx, id, { step, note })
  const fact = visitFacts.proposed({ step, note })
  await record(ctx, { subject: 'visit', id, workOrderId, customerId, fact })
  return fieldVisit(ctx, id)
}
export async function writeFindings(
  ctx: Ctx,
  id: string,
  version: number,
  findings: string,
): Promise<Answer<'fieldVisit'>> {
  const visit = await ownVisit(ctx, id)
  await visibleWorkOrder(ctx, visit.workOrderId)
  if (!(await setFindings(ctx.tx, id, version, findings)))
    throw conflict('stale', 'Someone changed this visit in the meantime.', {
      current: { findings: visit.findings, version: visit.version },
      yours: { findings },
    })
  await record(ctx, {
    subject: 'visit',
    id,
    workOrderId: visit.workOrderId,
    fact: visitFacts.findingsWritten(),
  })
  return fieldVisit(ctx, id)
}
