// What somebody takes off lines that are not billed.
import { workFacts } from './facts'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { minorToDecimal } from '../../core/money/formatMinor'
import { discountOf } from '../../core/documents/discountOf'
import { lineNet } from '../../core/documents/lineNet'
import { shareAmount } from '../../core/money/shareAmount'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { levelFor } from '../pricebook/priceLines'
import { withinLimit } from '../pricebook/limits'
import { levelPart } from './takenOff'
import { accountOf, refreshWorkOrder, visibleWorkOrder } from './account'
import { workOrderPaper } from './views'
import { linesOf, updateLine } from './lines.queries'

export function readDiscount(text: string, ofMinor: number, currency: string): number {
  const minor = discountOf(text || '0', ofMinor, currency)
  if (minor === null)
    throw invalid('discount', 'Write an amount or a percentage, for example 25.00 or 10 %.')
  return minor
}
/** Goodwill on the whole, besides the level: taken off what is not billed yet, shared so that it is that amount exactly; instead of the goodwill before. */
export async function discountLines(
  ctx: Ctx,
  workOrderId: string,
  body: Body<'discountLines'>,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  if (work.cancelled || work.closed)
    throw conflict('closed', 'This work order is closed; nothing can be taken off it.')
  const lines = await linesOf(ctx.tx, workOrderId)
  const account = await accountOf(ctx, lines, workOrderId)
  const billed = new Set(account.lines.filter((l) => l.billedMinor > 0).map((l) => l.id))
  const open = lines.filter((l) => !billed.has(l.id))
  const level = await levelFor(ctx, work)
  const before = open.map(
    (l) =>
      lineNet({ quantity: l.quantity, unitPrice: l.unitPrice }, work.currency) -
      levelPart(l, level),
  )
  const total = before.reduce((n, net) => n + net, 0)
  if (total === 0)
    throw conflict(
      'nothing_open',
      'There is nothing that could be taken off: every line is billed, or costs nothing.',
    )
  const minor = readDiscount(body.discount, total, work.currency)
  if (minor > total) throw invalid('discount', 'This is more than all lines that are not billed.')
  const lowered = shareAmount(minor, before).map((share, i) => ({
    ...open[i]!,
    discountMinor: levelPart(open[i]!, level) + share,
    discountWords: share ? body.words : '',
    netMinor: before[i]! - share,
  }))
  await withinLimit(
    ctx,
    work,
    lowered,
    lines.filter((l) => billed.has(l.id)),
  )
  for (const line of lowered) await updateLine(ctx.tx, line, false)
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: work.customerId,
    fact: workFacts.discounted({
      amount: minorToDecimal(minor, work.currency),
      currency: work.currency,
      as: body.discount,
      words: body.words,
      was: minorToDecimal(
        open.reduce((n, l) => n + l.discountMinor, 0),
        work.currency,
      ),
    }),
  })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
