// A quote like another one: for similar work, at today's prices.
import { signedIn, type Ctx } from '../http/context'
import { nextNumber } from '../settings/numbers'
import { begunFor, noteOnQuote, payer, setLines } from './draft'
import { quoteFacts } from './facts'
import { asWanted, pricedAnew } from './lines'
import { insertQuote, quoteById, quoteLines } from './queries'
import { quoteView, visibleQuote, type QuoteView } from './views'

/**
 * Begins a quote with the words and lines of another one, for the same customer and site. What the book, or the
 * customer's own prices, had priced is priced as of today; what was typed by hand stays. No work belongs to it yet.
 */
export async function copyQuote(ctx: Ctx, id: string, newId: string): Promise<QuoteView> {
  const old = await visibleQuote(ctx, id)
  if (await quoteById(ctx.tx, newId)) return quoteView(ctx, newId)
  const customer = await payer(ctx, old.customerId, 'This customer is none any more.')
  const { number } = await nextNumber(ctx, 'quote')
  const { siteId, title, scope, source, contact, answers, equipmentId, aboutLineId } = old
  await insertQuote(ctx.tx, {
    ...{ id: newId, number, siteId, title, scope, source, contact, answers },
    ...{ equipmentId, aboutLineId },
    ...{ workOrderId: null, ownerId: signedIn(ctx).id, orderNumber: '' },
    ...begunFor(ctx, customer),
  })
  const quote = (await quoteById(ctx.tx, newId))!
  await noteOnQuote(ctx, quote, quoteFacts.copied({ number, from: old.number }))
  const anew = pricedAnew(customer.ownPrices)
  const lines = (await quoteLines(ctx.tx, id)).map((line) => ({
    ...(anew(line) ? { ...asWanted(line), unitPrice: undefined } : asWanted(line)),
    id: ctx.id(),
  }))
  await setLines(ctx, quote, lines)
  return quoteView(ctx, newId)
}
