// Lines of a work order: added, changed, taken out; rates of it alone.
import { workFacts } from './facts'
import type { Fact } from '../http/facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import { lineNet } from '../../core/documents/lineNet'
import { isAgreed } from '../../core/pricebook/priceOrder'
import { localToInstant } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { customerById, levels } from '../customers/queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import type { Call } from '../http/route'
import {
  expanded,
  levelFor,
  NO_LEVEL,
  priced,
  priceLines,
  withoutCosts,
  type WantedLine,
} from '../pricebook/priceLines'
import { entriesById } from '../pricebook/queries'
import { askBasket, basketLines } from '../pricebook/suppliers'
import { accountOf, refreshWorkOrder, visibleWorkOrder } from './account'
import { workOrderPaper } from './views'
import { insertLine, lineById, linesOf, updateLine, type LineRow } from './lines.queries'
import { setOwnPrices, type WorkOrderRow } from './queries'
import { visitById } from './visits.queries'
import { readDiscount } from './discounts'
import { levelPart } from './takenOff'
import { withinLimit } from '../pricebook/limits'

/** Where lines belong: promised before the work, or done at it. */
interface LinesOf {
  work: WorkOrderRow
  visitId?: string | null
  promised?: boolean
}
export async function putLines(
  ctx: Ctx,
  { work, visitId = null, promised = false }: LinesOf,
  wanted: WantedLine[],
): Promise<LineRow[]> {
  const hasTask = (await linesOf(ctx.tx, work.id)).some((l) => l.kind === 'task')
  const all = await expanded(ctx, wanted)
  const visit = visitId ? await visitById(ctx.tx, visitId) : null
  const at = visit?.startedAt ?? visit?.startAt
  const made = (await priceLines(ctx, work, all, { hasTask, at: at ? Date.parse(at) : null })).map(
    (line, i) => ({
      ...line,
      workOrderId: work.id,
      visitId,
      promisedMinor: promised ? line.netMinor : 0,
      done: promised ? false : (all[i]!.done ?? true),
      ...{ discountWords: '', phaseId: null },
      version: 1,
    }),
  )
  for (const line of made) await insertLine(ctx.tx, line)
  return made
}
/** What some entries would cost a customer at a time: the price to read out, as booking would make it. Lines before the customer's level, which is taken off beneath them. */
export async function tryLines(ctx: Ctx, body: Body<'tryLines'>): Promise<Answer<'tryLines'>> {
  const { currency, timeZone } = ctx.company
  const customer = body.customerId ? await customerById(ctx.tx, body.customerId) : null
  const all = await expanded(
    ctx,
    body.lines.map((l, asked) => ({
      id: ctx.id(),
      kind: undefined,
      name: undefined,
      unitPrice: undefined,
      ...l,
      asked,
    })),
  )
  const lines = await priceLines(
    ctx,
    { customerId: customer?.id ?? NOBODY, priceLevelId: customer?.priceLevelId ?? null, currency },
    all,
    { at: body.date && body.start ? localToInstant(body.date, body.start, timeZone) : null },
  )
  const m = (minor: number) => toMoney(minor, currency)
  const own = customer
    ? (await levels(ctx.tx)).some((l) => l.id === customer.priceLevelId && l.kind === 'agreement')
    : false
  return {
    lines: lines.map((l, i) => ({
      of: all[i]!.asked,
      entryId: l.entryId,
      name: l.name,
      quantity: new Decimal(l.quantity).toString(),
      net: m(l.netMinor + l.discountMinor),
      priceFrom: l.priceFrom,
    })),
    own,
    saving: m(lines.reduce((n, l) => n + l.savingMinor, 0)),
    net: m(lines.reduce((n, l) => n + l.netMinor, 0)),
  }
}
const NOBODY = '00000000-0000-0000-0000-000000000000'
/** Rates of one work order alone: what its labour and its charges cost there. Lines that stand there already keep their price. */
export async function keepWorkRates(
  ctx: Ctx,
  workOrderId: string,
  body: Body<'keepWorkRates'>,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  mayAddTo(work)
  const known = new Map(
    (
      await entriesById(
        ctx.tx,
        body.rates.map((r) => r.entryId),
      )
    ).map((e) => [e.id, e]),
  )
  for (const [i, r] of body.rates.entries())
    if (!['labour', 'charge'].includes(known.get(r.entryId)?.kind ?? ''))
      throw invalid(
        `rates[${i}].entryId`,
        'Only labour rates and charges can be agreed for a work order.',
      )
  if (
    !(await setOwnPrices(
      ctx.tx,
      workOrderId,
      body.version,
      Object.fromEntries(body.rates.map((r) => [r.entryId, r.price])),
    ))
  )
    throw conflict('stale', 'Someone changed this work order in the meantime.')
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: work.customerId,
    fact: workFacts.ratesKept({
      rates: body.rates.map((r) => ({ name: known.get(r.entryId)!.name, price: r.price })),
      was: work.ownPrices,
    }),
  })
  return workOrderPaper(ctx, workOrderId)
}
export async function addLines(
  ctx: Ctx,
  workOrderId: string,
  body: Body<'addLines'>,
): Promise<Answer<'workOrder'>> {
  return addWanted(ctx, workOrderId, body.visitId, withoutCosts(ctx, body.lines))
}
function mayAddTo({ cancelled, closed }: WorkOrderRow): void {
  if (cancelled || closed)
    throw conflict('closed', 'This work order is closed; nothing can be added to it.')
}
async function addWanted(
  ctx: Ctx,
  workOrderId: string,
  visitId: string | null,
  lines: WantedLine[],
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  mayAddTo(work)
  if (lines.length === 0 || lines.length > 100)
    throw invalid('lines', 'Add between 1 and 100 lines.')
  const before = await linesOf(ctx.tx, work.id)
  const made = await putLines(ctx, { work, visitId }, lines)
  const typed = new Set(lines.filter((l) => l.unitPrice !== undefined).map((l) => l.id))
  const byHand = made.filter(({ id }) => typed.has(id))
  await withinLimit(ctx, work, byHand, before)
  for (const line of made) {
    await record(ctx, {
      subject: 'work',
      id: work.id,
      workOrderId: work.id,
      customerId: work.customerId,
      fact: workFacts.lineAdded(line),
    })
  }
  await refreshWorkOrder(ctx, work.id)
  return workOrderPaper(ctx, work.id)
}
export async function addBasket(
  call: Call,
  workOrderId: string,
  body: Body<'addBasket'>,
): Promise<Answer<'workOrder'>> {
  await call.inContext((ctx) => visibleWorkOrder(ctx, workOrderId))
  const asked = await askBasket(body.items)
  return call.once(async (ctx) =>
    addWanted(ctx, workOrderId, body.visitId, await basketLines(ctx, asked)),
  )
}
/** What came of a change of a line, as the history keeps it. */
function factOfChange(
  old: LineRow,
  now: LineRow,
  body: Body<'changeLine'>,
  currency: string,
): Fact {
  const change = {
    name: old.name,
    net: {
      from: minorToDecimal(old.netMinor, currency),
      to: minorToDecimal(now.netMinor, currency),
    },
    unitPrice: { from: old.unitPrice, to: now.unitPrice },
  }
  if (body.removed) return workFacts.lineRemoved(change)
  if (body.removed === false) return workFacts.linePutBack(change)
  if (body.done !== undefined && body.done !== old.done)
    return workFacts.lineDone({ ...change, done: body.done })
  return workFacts.lineChanged({ ...change, now: now.name })
}
/** A price that somebody wrote on the line itself. */
const TYPED = { priceSource: 'typed', priceFrom: 'typed here' } as const
type Change = Body<'changeLine'>
/** What is on an invoice stays as it was billed. */
function mayChange(body: Change, billedMinor: number): void {
  const { removed, unitPrice, quantity, name, discount, discountWords, done } = body
  const written = [unitPrice, quantity, name, discount, discountWords].some(
    (value) => value !== undefined,
  )
  if (billedMinor > 0 && (removed || written || done === false))
    throw conflict('billed', 'This line is on an invoice; add a line, or correct the invoice.')
  if (quantity !== undefined && new Decimal(quantity).isZero())
    throw invalid('quantity', 'The quantity is zero; take the line out instead.')
}
/** Seconds that one of it covers. */
const secondsOfOne = ({ quantity, coversSeconds }: LineRow): number =>
  new Decimal(quantity).isZero()
    ? 0
    : Math.round(new Decimal(coversSeconds).div(quantity).toNumber())
/** What the discount is for, where there is one besides the level's. */
const wordsOf = (old: LineRow, saidMinor: number, body: Change, level: { own: boolean }): string =>
  saidMinor > levelPart(old, level) ? (body.discountWords ?? old.discountWords) : ''
/** The line as it would be: priced anew, with what was said of it. */
async function changed(ctx: Ctx, old: LineRow, work: WorkOrderRow, body: Change): Promise<LineRow> {
  const { currency } = work
  const [quantity, unitPrice] = [body.quantity ?? old.quantity, body.unitPrice ?? old.unitPrice]
  const source = new Decimal(unitPrice).eq(old.unitPrice)
    ? { priceSource: old.priceSource, priceFrom: old.priceFrom }
    : TYPED
  const level = isAgreed(source.priceSource) ? NO_LEVEL : await levelFor(ctx, work)
  const net = lineNet({ quantity, unitPrice }, currency)
  const said =
    body.discount === undefined ? old.discountMinor : readDiscount(body.discount, net, currency)
  // What the level took off follows the line; what somebody took off stays as they said.
  const byLevel = said === old.discountMinor && said === levelPart(old, level)
  const entry = old.entryId ? ((await entriesById(ctx.tx, [old.entryId]))[0] ?? null) : null
  const wanted = {
    ...old,
    ...source,
    name: body.name ?? old.name,
    quantity,
    unitPrice,
    done: body.done ?? old.done,
    coversSeconds: secondsOfOne(old),
    discountMinor: said,
    discountWords: wordsOf(old, said, body, level),
  }
  return priced(wanted, entry, { ...level, currency, keepDiscount: !byLevel })
}
export async function changeLine(
  ctx: Ctx,
  lineId: string,
  body: Change,
): Promise<Answer<'workOrder'>> {
  const putsBack = body.removed === false
  const old = await lineById(ctx.tx, lineId, putsBack)
  if (!old) throw notFound('line')
  const work = await visibleWorkOrder(ctx, old.workOrderId, true)
  if (putsBack) mayAddTo(work)
  const stale = 'Someone changed this line in the meantime.'
  if (old.version !== body.version) throw conflict('stale', stale, { current: old, yours: body })
  mayChange(body, (await accountOf(ctx, [old], work.id)).lines[0]!.billedMinor)
  const line = await changed(ctx, old, work, body)
  // Who only ticks it off or takes it out sets no price.
  if (body.unitPrice !== undefined || body.discount !== undefined) {
    const all = await linesOf(ctx.tx, work.id)
    const at = all.findIndex(({ id }) => id === line.id)
    await withinLimit(ctx, work, [line], all.slice(0, Math.max(0, at)))
  }
  if (!(await updateLine(ctx.tx, line, body.removed ?? false))) throw conflict('stale', stale)
  await record(ctx, {
    subject: 'work',
    id: work.id,
    workOrderId: work.id,
    customerId: work.customerId,
    fact: factOfChange(old, line, body, work.currency),
  })
  await refreshWorkOrder(ctx, work.id)
  return workOrderPaper(ctx, work.id)
}
