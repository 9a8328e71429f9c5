// What screens are told of calls.
import { kindsOf } from '../settings/index'
import { sayCallAbout } from '../../core/calls/callAbout'
import { allCalls, callCounts, type CallCount, type CountedBy } from '../../core/calls/callCounts'
import { invalid, notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { sayDay } from '../../core/time/sayDay'
import { sayAgo } from '../../core/time/sayAgo'
import { DAY } from '../../core/time/units'
import { dayBounds, plusDays } from '../../core/time/zone'
import { sayWorkKind } from '../../core/visits/workKinds'
import type { Answer, Query } from '../../shared/api'
import { callDraft } from '../../shared/calls'
import { filesOf } from '../customers/history.queries'
import type { Ctx } from '../http/context'
import { alikeCalls, callById, waitingCalls, type CallRow } from './queries'

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

const USUAL_DAYS = 90
const NAMES: Readonly<Record<CountedBy, (key: string, ctx: Ctx) => string>> = {
  source: (key) => key || 'not asked',
  kind: (key, ctx) => (key ? sayWorkKind(key, kindsOf(ctx)) : 'none'),
  about: sayCallAbout,
}
/** Calls of some days by what they have in common, with what came of them; a quarter of a year where no days are said. */
export async function countedCalls(
  ctx: Ctx,
  query: Query<'callsCounted'>,
): Promise<Answer<'callsCounted'>> {
  const to = query.to ?? ctx.today
  const from = query.from ?? plusDays(to, -USUAL_DAYS)
  if (from > to) throw invalid('to', 'The last day is before the first.')
  const by = query.by ?? 'source'
  const { timeZone, currency } = ctx.company
  const [begin, end] = [dayBounds(from, timeZone).from, dayBounds(to, timeZone).to]
  const alike = await alikeCalls(ctx.tx, begin, end)
  const shown = ({ calls, came, billedMinor, paidMinor }: CallCount) => ({
    ...{ calls, came },
    billed: toMoney(billedMinor, currency),
    paid: toMoney(paidMinor, currency),
  })
  const items = callCounts(alike, by).map((count) => ({
    ...{ key: count.key, name: NAMES[by](count.key, ctx) },
    ...shown(count),
  }))
  return { ...{ from, to, by, items }, all: shown(allCalls(alike)) }
}
