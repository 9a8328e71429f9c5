// The technician's day, and a visit as it is looked at on the phone.
import { visitFacts } from './facts'
import { conflict, notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { workedSeconds } from '../../core/hours/workedSeconds'
import { dayBounds, localDate } from '../../core/time/zone'
import { clockActsFrom, isUnderWay } from '../../core/visits/visitLifecycle'
import { DAY } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { forecastOf, type Forecast } from '../dispatch/forecast'
import { may, signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { visibleWorkOrder } from './account'
import { workOrderPaper } from './views'
import {
  fieldRow,
  fieldRows,
  goesAlong,
  setFindings,
  setNextStep,
  notBegunRows,
  visitById,
  visitsOfTechnician,
  visitsOfWork,
  type FieldRow,
  type VisitRow,
} from './visits.queries'
import { intervalsOf } from './clock.queries'
import { workOrderById } from './queries'

type FieldVisit = Answer<'fieldDay'>['visits'][number]
/** A visit as a phone shows it, with the drive from where its technician is before it. */
function shape(ctx: Ctx, r: FieldRow, forecast: Forecast | undefined): FieldVisit {
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
    phone2: r.customerPhone2,
    otherContacts: r.otherContacts,
    tags: r.tags,
    promise: r.promiseFrom ? `${r.promiseFrom}–${r.promiseTo}` : '',
    startAt: r.startAt,
    durationSeconds: r.durationSeconds,
    driveSeconds: forecast?.driveSeconds ?? 0,
    lead:
      ctx.actor && r.technicianId !== ctx.actor.id && ctx.actor.role === 'technician'
        ? (r.technician ?? '')
        : '',
    state: r.state,
    total: r.net ? toMoney(r.net, r.currency) : null,
    officeNote: r.officeNote,
  }
}
export const isOpen = (v: Pick<VisitRow, 'state'>) => isUnderWay(v.state)

/** How long a visit that nobody began stays with whoever should have. */
const LOOK_BACK_DAYS = 14
export async function fieldDay(ctx: Ctx, date: string): Promise<Answer<'fieldDay'>> {
  const me = signedIn(ctx)
  const { from, to } = dayBounds(date, ctx.company.timeZone)
  const rows = await fieldRows(ctx.tx, me.id, from, to)
  const runs = await forecastOf(ctx, me.id, date)
  const visits = rows.map((r) => shape(ctx, r, runs.get(r.id)))
  const before = await notBegunRows(ctx.tx, me.id, from - LOOK_BACK_DAYS * DAY, from)
  return {
    date,
    now: new Date(ctx.now).toISOString(),
    visits,
    notBegun: before.map((r) => shape(ctx, r, undefined)),
    openVisitId: rows.find((v) => isOpen(v) && v.technicianId === me.id)?.id ?? null,
  }
}

export async function ownVisit(ctx: Ctx, id: string, lock = false, act = false): Promise<VisitRow> {
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
/** How the visit will run on its day, for the one who leads. */
export async function runOf(ctx: Ctx, { id, technicianId, startAt }: VisitRow) {
  const day = startAt ? localDate(Date.parse(startAt), ctx.company.timeZone) : ctx.today
  return (await forecastOf(ctx, technicianId, day)).get(id)
}
/** What was proposed at the closed door, if the visit still waits that comes again for it. */
async function proposedFor(ctx: Ctx, { id, state, workOrderId }: VisitRow) {
  if (state !== 'no_access') return null
  const again = (await visitsOfWork(ctx.tx, workOrderId)).find((v) => v.againOf === id)
  return again ? { step: again.nextStep, note: again.note } : null
}
export async function fieldVisit(ctx: Ctx, id: string): Promise<Answer<'fieldVisit'>> {
  const visit = await ownVisit(ctx, id)
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
  return {
    visit: shape(ctx, (await fieldRow(ctx.tx, id))!, await runOf(ctx, visit)),
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
