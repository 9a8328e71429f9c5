// Acts on calls: kept while they are typed, booked.
import { QUOTE_VISIT } from '../../core/visits/workKinds'
import { checkWorkKind } from '../settings/index'
import { insertPhoto, insertVisit } from '../visits/index'
import { lockPeople } from '../dispatch/index'
import { updateRow } from '../customers/index'
import { callFacts } from './facts'
import { workFacts, type BookedAgainst } from '../visits/facts'
import { callWaits } from '../../core/calls/callWaits'
import { conflict, invalid, LedgerError } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { localToInstant } from '../../core/time/zone'
import { formatPhone } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import { mustBeThere } from '../customers/aboutThere'
import { contactsOf, siteById } from '../customers/places.queries'
import { customerById, type CustomerRow } from '../customers/queries'
import { fileById, filesOf, filesOfCallTo } from '../customers/history.queries'
import { owedBy } from '../customers/owed.queries'
import { checkPlacement, mayPlace } from '../dispatch/placing'
import { placeVisit } from '../dispatch/commands'
import { confirmVisit } from '../dispatch/visitMessages'
import { emit } from '../events/events'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder } from '../visits/account'
import { putLines } from '../visits/lines'
import { technicianIdsOf, visitById } from '../visits/visits.queries'
import { makeWorkOrder } from '../visits/newWorkOrder'
import { workOrderById } from '../visits/queries'
import { heldFor } from './holding'
import { callById, draftOfCall, keepCall, markCall, versionOfCall } from './queries'
import { checkCharges, noteLeftOut } from './usualCharges'
import type { Row } from './views'

/** What of a call was kept before, where it still takes words and nobody else wrote in it since it was read. */
async function keptCall(ctx: Ctx, id: string, version: number | null) {
  const kept = await draftOfCall(ctx.tx, id)
  if (kept && !callWaits(kept.state))
    throw conflict(
      'call_ended',
      `This call was ${kept.state} meanwhile. What you typed since is in this browser alone.`,
    )
  if (kept && version !== null && version !== kept.version)
    throw conflict('stale', 'Someone else is writing in this call.', {
      current: { draft: kept.draft, version: kept.version },
    })
  return kept
}
export async function saveCall(
  ctx: Ctx,
  id: string,
  body: Body<'saveCall'>,
): Promise<Answer<'saveCall'>> {
  // People first, as everywhere, then the call.
  const { heldBy, heldUntil } = await heldFor(ctx, id, body.draft)
  const kept = await keptCall(ctx, id, body.version)
  await keepCall(ctx.tx, {
    id,
    draft: body.draft,
    summary: body.summary,
    origin: body.origin,
    by: signedIn(ctx).id,
    at: ctx.now,
    heldUntil,
  })
  // It began once, for whom it is once that is known; a pause of the typing is no event of its own, and is told to other windows all the same.
  const wasKnown = (kept?.draft as Row['draft'] | undefined)?.customerId ?? null
  if (kept && (wasKnown || !body.draft.customerId))
    emit(ctx.tx, { topic: 'change', subject: 'call', subjectId: id, workOrderId: null })
  else
    await record(ctx, {
      subject: 'call',
      id,
      customerId: body.draft.customerId ?? null,
      fact: callFacts.begun(),
    })
  return {
    ok: true,
    version: await versionOfCall(ctx.tx, id),
    heldUntil: heldUntil === null ? null : new Date(heldUntil).toISOString(),
    heldBy,
  }
}
/** Stop-work and the credit limit do not forbid a booking; somebody says why it is made all the same. */
async function mayBook(ctx: Ctx, customer: CustomerRow, reason: string): Promise<BookedAgainst> {
  const [debt] = await owedBy(ctx.tx, [customer.id], ctx.today)
  const over = customer.creditLimit !== null && (debt?.owed ?? 0) > customer.creditLimit
  if (!customer.stopWork && !over) return null
  if (!reason) {
    const message = customer.stopWork
      ? `No work for this customer: ${customer.stopWork}. Say why it is booked all the same.`
      : 'This customer owes more than the limit. Say why it is booked all the same.'
    throw new LedgerError('stop_work', message, {
      errors: [{ path: 'reason', message }],
      extra: { owed: toMoney(debt?.owed ?? 0, ctx.company.currency) },
    })
  }
  return { what: customer.stopWork ? 'stop_work' : 'credit_limit', reason }
}
type Booking = Body<'bookCall'>
/** Before anything is looked up: whoever books the same people at this moment waits, and then sees this booking. */
async function lockBooked(ctx: Ctx, { technicianId, moves }: Booking): Promise<void> {
  const moved = moves.map((m) => m.visitId)
  await lockPeople(ctx.tx, [technicianId, ...(await technicianIdsOf(ctx.tx, moved))])
}
/** What a booking says of its time and its person. */
function checkBooking(ctx: Ctx, body: Booking): void {
  checkWorkKind(ctx, body.kind)
  if (body.promiseFrom && body.promiseTo && body.promiseTo <= body.promiseFrom)
    throw invalid('promiseTo', 'The window ends before it begins.')
  if (body.start && !body.date) throw invalid('date', 'Choose the day too.')
  if (body.kind === QUOTE_VISIT && !body.technicianId)
    throw invalid(
      'technicianId',
      'Choose who goes to quote: a visit without a person is seen by nobody.',
    )
}
/** Whom and what a booking is about, all of it this customer's. */
async function partiesOf(ctx: Ctx, body: Booking) {
  const customer = await customerById(ctx.tx, body.customerId)
  if (!customer || customer.mergedInto || customer.erasedAt)
    throw invalid('customerId', 'Choose who is calling.')
  const site = await siteById(ctx.tx, body.siteId)
  if (!site || site.customerId !== customer.id) throw invalid('siteId', 'Choose where the work is.')
  await mustBeThere(ctx, body, site.id)
  const known = body.contactId ? await contactsOf(ctx.tx, [customer.id]) : []
  const contact = known.find((k) => k.id === body.contactId)
  return { customer, site, contact }
}
type Parties = Awaited<ReturnType<typeof partiesOf>>
/** When the visit begins, and what speaks against it; others make room for it, or the booking is refused. */
async function placeOf(ctx: Ctx, callId: string, body: Booking) {
  const { date, start, technicianId } = body
  const startAt = date && start ? localToInstant(date, start, ctx.company.timeZone) : null
  // An opening may have others begin later, within what was promised to them: they move with the booking.
  for (const move of body.moves) await makeRoom(ctx, move)
  const { durationSeconds, promiseFrom: from, promiseTo: to, siteId } = body
  const promise = date && from && to ? { date, from, to } : null
  const placed = { durationSeconds, promise, siteId }
  const warnings =
    technicianId && startAt !== null
      ? await checkPlacement(ctx, { ...placed, visitId: null, callId, technicianId, startAt })
      : []
  await mayPlace(ctx, warnings, body.override)
  return { startAt, warnings: warnings.map((w) => w.text) }
}
async function insertBooked(ctx: Ctx, body: Booking, parties: Parties, startAt: number | null) {
  const { contact } = parties
  const title = body.title || body.problem.split(/[.\n]/)[0]!.slice(0, 80)
  const number = await makeWorkOrder(ctx, parties, {
    id: body.workOrderId,
    title,
    problem: body.problem,
    kind: body.kind,
    contact: {
      name: body.speaking || contact?.name || '',
      phone: formatPhone(body.phone || contact?.phone || '', ctx.company.country),
    },
    orderNumber: body.orderNumber,
    answers: body.answers.filter((a) => a.answer),
    equipmentId: body.equipmentId,
    aboutLineId: body.suppliedLineId,
    assignedTo: body.kind === QUOTE_VISIT ? body.technicianId : null,
    source: body.source,
  })
  await insertVisit(ctx.tx, {
    id: body.visitId,
    workOrderId: body.workOrderId,
    technicianId: body.technicianId,
    startAt,
    durationSeconds: body.durationSeconds,
    promiseDate: body.date,
    promiseFrom: body.promiseFrom,
    promiseTo: body.promiseTo,
  })
  return { number, title }
}
/** What was read out of the book becomes promised lines. */
async function putPromised(ctx: Ctx, body: Booking): Promise<void> {
  const work = (await workOrderById(ctx.tx, body.workOrderId))!
  const promised = body.entries.map(({ entryId, quantity }) => ({
    id: ctx.id(),
    entryId,
    quantity,
    kind: 'other' as const,
    name: undefined,
    unitPrice: undefined,
    done: false,
  }))
  await putLines(ctx, { work, visitId: body.visitId, promised: true }, promised)
}
/** The call is over: what came with it belongs to the work order and the customer. */
async function closeCall(ctx: Ctx, id: string, body: Booking, customer: Parties['customer']) {
  const { workOrderId } = body
  const kept = { by: signedIn(ctx).id, at: ctx.now }
  if (!(await callById(ctx.tx, id, true)))
    await keepCall(ctx.tx, { id, draft: {}, summary: customer.name, origin: 'telephone', ...kept })
  await markCall(ctx.tx, id, 'booked', { workOrderId })
  // Pictures that came with the call are photos of its work order too.
  for (const { id: fileId, mime } of await filesOf(ctx.tx, 'call_id', [id])) {
    if (!mime.startsWith('image/')) continue
    const { bytes } = (await fileById(ctx.tx, fileId))!
    await insertPhoto(ctx.tx, { id: ctx.id(), workOrderId, mime, bytes, ...kept })
  }
  await filesOfCallTo(ctx.tx, id, customer.id)
}
/** A prospect with ordinary work is a customer; one that is quoted belongs to the person who quotes. */
async function noLongerProspect(ctx: Ctx, body: Booking, customer: Parties['customer']) {
  if (!customer.prospect) return
  const quoted = body.kind === QUOTE_VISIT
  const now = quoted ? { assignedTo: body.technicianId } : { prospect: false }
  await updateRow(ctx.tx, 'customers', customer, now)
}
export async function bookCall(ctx: Ctx, id: string, body: Booking): Promise<Answer<'bookCall'>> {
  await lockBooked(ctx, body)
  const parties = await partiesOf(ctx, body)
  const { customer } = parties
  const known = await callById(ctx.tx, id, true)
  if (known?.state === 'booked')
    throw conflict('already_booked', 'This call has been booked already.', {
      workOrderId: known.workOrderId,
    })
  checkBooking(ctx, body)
  const leftOut = await checkCharges(ctx, body)
  const against = await mayBook(ctx, customer, body.reason)
  const { startAt, warnings } = await placeOf(ctx, id, body)
  const { number, title } = await insertBooked(ctx, body, parties, startAt)
  await putPromised(ctx, body)
  await closeCall(ctx, id, body, customer)
  await noLongerProspect(ctx, body, customer)
  const { workOrderId, visitId } = body
  const start = startAt === null ? null : new Date(startAt).toISOString()
  // Nobody knew yet whose it was when it came.
  if (known?.origin === 'form')
    await record(ctx, {
      subject: 'call',
      id,
      workOrderId,
      customerId: customer.id,
      fact: callFacts.cameByForm({ at: known.createdAt }),
    })
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: customer.id,
    fact: workFacts.booked({ title, number, startAt: start, against, warnings }),
  })
  await noteLeftOut(ctx, body, leftOut)
  await refreshWorkOrder(ctx, workOrderId)
  await confirmVisit(ctx, visitId)
  return { workOrderId, number, visitId }
}
async function makeRoom(ctx: Ctx, move: { visitId: string; startAt: string }): Promise<void> {
  const visit = await visitById(ctx.tx, move.visitId, true)
  if (
    !visit ||
    visit.state !== 'planned' ||
    !visit.startAt ||
    Date.parse(visit.startAt) > Date.parse(move.startAt)
  )
    throw conflict(
      'day_changed',
      'The day has changed since this opening was offered. Take another opening.',
    )
  const late =
    visit.promiseDate &&
    visit.promiseTo &&
    Date.parse(move.startAt) >
      localToInstant(visit.promiseDate, visit.promiseTo, ctx.company.timeZone)
  if (late)
    throw conflict(
      'day_changed',
      'A visit that would move would miss its promise now. Take another opening.',
    )
  await placeVisit(ctx, visit.id, {
    version: visit.version,
    technicianId: visit.technicianId,
    startAt: move.startAt,
    durationSeconds: visit.durationSeconds,
    override: true,
    crewIds: undefined,
    promise: undefined,
    known: false,
  })
}
