// What screens are told of calls.
import { notFound } from '../../core/errors/LedgerError'
import { sayDay } from '../../core/time/sayDay'
import { sayAgo } from '../../core/time/sayAgo'
import { DAY } from '../../core/time/units'
import type { Answer } from '../../shared/api'
import { callDraft } from '../../shared/calls'
import { filesOf } from '../customers/history.queries'
import type { Ctx } from '../http/context'
import { callById, waitingCalls, type CallRow } from './queries'

export type Row = Answer<'call'>
function backOn(ctx: Ctx, { callBackOn }: CallRow): string {
  if (callBackOn === ctx.today) return 'today'
  return `on ${callBackOn ? sayDay(callBackOn, ctx.company.locale) : 'a day'}`
}
/** What a call that is not booked yet still wants. */
function missingIn(draft: Row['draft']): string {
  const missing = [
    !draft.customerId && 'the customer',
    draft.customerId && !draft.siteId && 'the site',
    !draft.problem && 'what is wrong',
    !(draft.date && draft.start) && 'a time',
    !draft.technicianId && 'who goes',
  ]
  return missing.filter(Boolean).join(', ') || 'the booking itself'
}
const isOverdue = (ctx: Ctx, c: CallRow) =>
  c.state === 'put_off' && c.callBackOn !== null && c.callBackOn < ctx.today
/** Why it waits, in words. */
function whyWaiting(ctx: Ctx, c: CallRow, draft: Row['draft']): string {
  if (c.state === 'put_off')
    return `Call back ${backOn(ctx, c)}: ${c.reason}${isOverdue(ctx, c) ? ', overdue' : ''}`
  if (c.state !== 'open') return c.reason
  return c.origin === 'form' && !draft.customerId
    ? `Asked on the request form ${sayAgo(ageOf(ctx, c))} ago: nobody has answered yet`
    : `Still missing: ${missingIn(draft)}`
}
const ageOf = (ctx: Ctx, c: CallRow) => ctx.now - Date.parse(c.createdAt)
function shape(ctx: Ctx, c: CallRow, files: Row['files']): Row {
  const draft = callDraft.cast(c.draft) as Row['draft']
  return {
    id: c.id,
    state: c.state,
    origin: c.origin,
    summary: c.summary || draft.query || 'Call without a name',
    waiting: whyWaiting(ctx, c, draft),
    late: isOverdue(ctx, c) || (c.state === 'open' && ageOf(ctx, c) > DAY),
    draft,
    workOrderId: c.workOrderId,
    callBackOn: c.callBackOn,
    assignedTo: c.assignedTo ?? '',
    takenBy: c.takenBy ?? '',
    createdAt: c.createdAt,
    version: c.version,
    files,
  }
}
export async function listCalls(ctx: Ctx): Promise<Answer<'calls'>> {
  const calls = await waitingCalls(ctx.tx)
  const files = await filesOf(
    ctx.tx,
    'call_id',
    calls.map((c) => c.id),
  )
  const shaped = calls.map((c) =>
    shape(
      ctx,
      c,
      files.filter((f) => f.of === c.id).map(({ id, name, mime }) => ({ id, name, mime })),
    ),
  )
  // What asks for an answer first: overdue, then requests that nobody answered, then what lacks something, then what is put off to later.
  const weight = (c: Row) => {
    if (c.state === 'put_off' && c.callBackOn! > ctx.today) return 3
    if (c.late) return 0
    return c.origin === 'form' ? 1 : 2
  }
  return { items: shaped.sort((a, b) => weight(a) - weight(b)) }
}
export async function oneCall(ctx: Ctx, id: string): Promise<Row> {
  const call = await callById(ctx.tx, id)
  if (!call) throw notFound('call')
  return shape(
    ctx,
    call,
    (await filesOf(ctx.tx, 'call_id', [id])).map((f) => ({ id: f.id, name: f.name, mime: f.mime })),
  )
}
