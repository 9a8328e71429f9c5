// What several acts on a draft share: who pays, its priced lines, what is noted.
import { invalid } from '../../core/errors/LedgerError'
import { isExempt } from '../../core/tax/isExempt'
import { plusDays } from '../../core/time/zone'
import { customerById, type CustomerRow } from '../customers/queries'
import type { Ctx } from '../http/context'
import type { Fact } from '../http/facts'
import { record } from '../http/queries'
import { expanded, priceLines, type WantedLine } from '../pricebook/priceLines'
import { putQuoteLines, updateQuote, type QuoteRow } from './queries'
import { totalsOf } from './views'

/** Notes what happened to a quote. */
export const noteOnQuote = (
  ctx: Ctx,
  quote: Pick<QuoteRow, 'id' | 'workOrderId' | 'customerId'>,
  fact: Fact,
) =>
  record(ctx, {
    subject: 'quote',
    id: quote.id,
    workOrderId: quote.workOrderId,
    customerId: quote.customerId,
    fact,
  })

/** Who pays: a customer that is still one. */
export async function payer(ctx: Ctx, id: string, sentence: string): Promise<CustomerRow> {
  const customer = await customerById(ctx.tx, id)
  if (!customer || customer.mergedInto || customer.erasedAt) throw invalid('customerId', sentence)
  return customer
}

/** What a quote that begins now takes from who pays, and from the day. */
export const begunFor = (ctx: Ctx, customer: CustomerRow) => ({
  customerId: customer.id,
  priceLevelId: customer.priceLevelId,
  taxExempt: isExempt(customer, ctx.today),
  expiresOn: plusDays(ctx.today, ctx.company.quoteDays),
  currency: ctx.company.currency,
  now: ctx.now,
})

/** Prices the lines that are wanted, and keeps them with their sums. */
export async function setLines(ctx: Ctx, quote: QuoteRow, wanted: WantedLine[]): Promise<void> {
  const lines = await priceLines(ctx, quote, await expanded(ctx, wanted))
  await putQuoteLines(ctx.tx, quote.id, lines)
  const totals = await totalsOf(ctx, quote, lines)
  await updateQuote(ctx.tx, { ...quote, net: totals.netMinor, total: totals.totalMinor })
}
