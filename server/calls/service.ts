// A call from the first word to its end: kept while it is typed; booked as a work order with its number and a visit.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { localDate, localTime, localToInstant } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { callDraft } from '../../shared/calls'
import { customerById, siteById } from '../customers/queries'
import { checkPlacement, mayPlace } from '../dispatch/service'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { json, nextNumber } from '../settings/queries'
import { refreshWorkOrder } from '../visits/account'
import { putLines } from '../visits/lines'
import { insertVisit, insertWorkOrder, workOrderById } from '../visits/queries'
import { callById, keepCall, markCall, waitingCalls, type CallRow } from './queries'

function shape(ctx: Ctx, c: CallRow): Answer<'call'> {
  const draft = callDraft.cast(json<object>(c.draft)) as Answer<'call'>['draft']
  const missing = [!draft.customerId && 'the customer', !draft.problem && 'what is wrong', !draft.date && 'a day'].filter(Boolean)
  const waiting = c.state === 'put_off' ? `Call back on ${c.callBackOn ?? 'a day'}: ${c.reason}${c.callBackOn && c.callBackOn < ctx.today ? ', overdue' : ''}` : c.state === 'open' ? `Still missing: ${missing.join(', ') || 'the booking itself'}` : c.reason
  return { id: c.id, state: c.state, summary: c.summary || draft.query || 'Call without a name', waiting, draft, workOrderId: c.workOrderId, callBackOn: c.callBackOn, takenBy: c.takenBy, createdAt: c.createdAt, version: c.version }
}
export const listCalls = async (ctx: Ctx): Promise<Answer<'calls'>> => ({ items: (await waitingCalls(ctx.tx)).map(c => shape(ctx, c)) })
export async function oneCall(ctx: Ctx, id: string): Promise<Answer<'call'>> {
  const call = await callById(ctx.tx, id)
  if (!call) throw notFound('call')
  return shape(ctx, call)
}
export async function saveCall(ctx: Ctx, id: string, body: Body<'saveCall'>): Promise<Answer<'saveCall'>> {
  await keepCall(ctx.tx, { id, draft: body.draft, summary: body.summary, by: signedIn(ctx).id, at: ctx.now })
  await record(ctx, { subject: 'call', id, customerId: body.draft.customerId ?? null, text: 'Call kept' })
  return { ok: true }
}

export async function bookCall(ctx: Ctx, id: string, body: Body<'bookCall'>): Promise<Answer<'bookCall'>> {
  const customer = await customerById(ctx.tx, body.customerId)
  if (!customer) throw invalid('customerId', 'Choose who is calling.')
  const site = await siteById(ctx.tx, body.siteId)
  if (!site) throw invalid('siteId', 'Choose where the work is.')
  const known = await callById(ctx.tx, id)
  if (known?.state === 'booked') throw conflict('already_booked', 'This call has been booked already.', { workOrderId: known.workOrderId })
  if (body.promiseFrom && body.promiseTo && body.promiseTo <= body.promiseFrom) throw invalid('promiseTo', 'The window ends before it begins.')
  if (body.start && !body.date) throw invalid('date', 'Choose the day too.')
  const zone = ctx.company.timeZone
  const startAt = body.date && body.start ? localToInstant(body.date, body.start, zone) : null
  const warnings = body.technicianId && startAt !== null ? await checkPlacement(ctx, { visitId: null, technicianId: body.technicianId, startAt, durationSeconds: body.durationSeconds, promiseFrom: body.promiseFrom, promiseTo: body.promiseTo }) : []
  await mayPlace(ctx, warnings, body.override)
  const number = await nextNumber(ctx.tx, 'work_order')
  const title = body.title || body.problem.split(/[.\n]/)[0]!.slice(0, 80)
  await insertWorkOrder(ctx.tx, {
    id: body.workOrderId, number, customerId: customer.id, siteId: site.id, title, problem: body.problem, kind: body.kind, contact: { name: body.speaking, phone: body.phone },
    orderNumber: body.orderNumber, priceLevelId: customer.priceLevelId, taxExempt: customer.taxExempt, currency: ctx.company.currency, now: ctx.now,
  })
  await insertVisit(ctx.tx, { id: body.visitId, workOrderId: body.workOrderId, technicianId: body.technicianId, startAt, durationSeconds: body.durationSeconds, promiseDate: body.date, promiseFrom: body.promiseFrom, promiseTo: body.promiseTo })
  const work = (await workOrderById(ctx.tx, body.workOrderId))!
  await putLines(ctx, work, body.visitId, body.entries.map(e => ({ id: ctx.id(), entryId: e.entryId, quantity: e.quantity, kind: 'other' as const, name: undefined, unitPrice: undefined, done: false })), true)
  if (!known) await keepCall(ctx.tx, { id, draft: {}, summary: customer.name, by: signedIn(ctx).id, at: ctx.now })
  await markCall(ctx.tx, id, 'booked', { workOrderId: body.workOrderId })
  const when = startAt === null ? 'no time yet' : `${localDate(startAt, zone)} ${localTime(startAt, zone)}`
  await record(ctx, { subject: 'work', id: body.workOrderId, workOrderId: body.workOrderId, customerId: customer.id, text: `Call taken: ${title}. Booked as ${number}, ${when}${warnings.length ? ` in spite of: ${warnings.map(w => w.text).join('; ')}` : ''}` })
  await refreshWorkOrder(ctx, body.workOrderId)
  return { workOrderId: body.workOrderId, number, visitId: body.visitId }
}
export async function endCall(ctx: Ctx, id: string, body: Body<'endCall'>): Promise<Answer<'endCall'>> {
  if (body.state === 'put_off' && !body.callBackOn) throw invalid('callBackOn', 'Choose the day on which to call back.')
  if (!(await markCall(ctx.tx, id, body.state, { reason: body.reason, callBackOn: body.callBackOn }))) throw notFound('open call')
  await record(ctx, { subject: 'call', id, text: body.state === 'put_off' ? `Call back on ${body.callBackOn}: ${body.reason}` : `No: ${body.reason}` })
  return { ok: true }
}
