// Acts on quotes: changed while they are drafts, sent as a frozen paper; a yes becomes promised work that waits for its slot.
import { minorToDecimal } from '../../core/money/formatMinor'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { stateAfter } from '../../core/documents/lifecycle'
import { quoteLifecycle, type QuoteAct } from '../../core/quotes/quoteLifecycle'
import { isExempt } from '../../core/tax/isExempt'
import { plusDays } from '../../core/time/zone'
import type { Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import type { Call } from '../http/route'
import { queueMail } from '../messages/service'
import { withoutCosts, type WantedLine } from '../pricebook/priceLines'
import { withinLimit } from '../pricebook/limits'
import { askBasket, basketLines } from '../pricebook/suppliers'
import { refreshWorkOrder } from '../visits/account'
import { quoteFacts, type QuotePart } from './facts'
import { asWanted, boughtOf, pricedAnew } from './lines'
import { linkHash } from './link'
import { promiseQuote } from './promise'
import {
  linkQuote,
  quoteById,
  quoteLines,
  setQuoteState,
  updateQuote,
  type QuoteRow,
} from './queries'
import { refusalOf } from './refusals'
import { quoteMailText, quotePaper, quoteView, visibleQuote, type QuoteView } from './views'
import { noteOnQuote, payer, setLines } from './draft'

const MOST_ADDRESSES = 4

/** A quote for an act: locked, seen by whoever acts, as they saw it, and in a state that allows it. */
async function quoteForAct(
  ctx: Ctx,
  id: string,
  act: QuoteAct,
  version: number,
): Promise<QuoteRow> {
  const quote = await visibleQuote(ctx, id, true)
  if (quote.version !== version)
    throw conflict('stale', 'Someone changed this quote in the meantime.', {
      current: await quoteView(ctx, id),
    })
  const refusal = refusalOf(quote, act, ctx.today)
  if (refusal) throw refusal
  return quote
}
/** Changes a draft: who pays, its words, how long its price is held, its lines. */
export async function changeQuote(
  ctx: Ctx,
  id: string,
  body: Body<'changeQuote'>,
): Promise<QuoteView> {
  const old = await quoteForAct(ctx, id, 'change', body.version)
  if (signedIn(ctx).role === 'technician' && body.customerId && body.customerId !== old.customerId)
    throw notFound('customer')
  const customer = await payer(ctx, body.customerId ?? old.customerId, 'Choose who pays.')
  if (body.expiresOn && body.expiresOn < ctx.today)
    throw invalid('expiresOn', 'That day has passed.')
  const quote: QuoteRow = {
    ...old,
    title: body.title ?? old.title,
    scope: body.scope ?? old.scope,
    orderNumber: body.orderNumber ?? old.orderNumber,
    expiresOn: body.expiresOn || old.expiresOn,
    ownerId: body.ownerId === undefined ? old.ownerId : body.ownerId,
    customerId: customer.id,
    priceLevelId: customer.priceLevelId,
    taxExempt: isExempt(customer, ctx.today),
  }
  await setLines(ctx, quote, await wantedAfter(ctx, old, quote, body.lines))
  await noteChanges(ctx, old, quote, Boolean(body.lines))
  return quoteView(ctx, id)
}
/**
 * The lines that a changed quote is to have. Where somebody else pays now, what the book, or the one who
 * paid before, had priced is priced for the new one; what was typed by hand stays.
 */
async function wantedAfter(
  ctx: Ctx,
  old: QuoteRow,
  quote: QuoteRow,
  typed: Body<'changeQuote'>['lines'],
): Promise<WantedLine[]> {
  const kept = await quoteLines(ctx.tx, old.id)
  const lineOf = new Map(kept.map((line) => [line.id, line]))
  if (typed)
    return withoutCosts(ctx, typed).map((line) => ({ ...line, ...boughtOf(lineOf.get(line.id)) }))
  const others =
    quote.customerId === old.customerId
      ? null
      : (await customerById(ctx.tx, old.customerId))!.ownPrices
  const bySystem = others === null ? () => false : pricedAnew(others)
  return kept.map((line) => ({
    ...asWanted(line),
    ...(bySystem(line) ? { unitPrice: undefined } : {}),
  }))
}
const TRACKED = ['title', 'scope', 'orderNumber', 'expiresOn', 'ownerId', 'customerId'] as const
async function noteChanges(
  ctx: Ctx,
  old: QuoteRow,
  quote: QuoteRow,
  lines: boolean,
): Promise<void> {
  const changed = TRACKED.filter((part) => quote[part] !== old[part])
  const parts: QuotePart[] = [...changed, ...(lines ? (['lines'] as const) : [])]
  const { net } = (await quoteById(ctx.tx, old.id))!
  const fact = quoteFacts.changed({ number: old.number, parts })
  const values = changed.map((part) => [part, { from: old[part], to: quote[part] }])
  const nets = {
    from: minorToDecimal(old.net, old.currency),
    to: minorToDecimal(net, old.currency),
  }
  await noteOnQuote(ctx, quote, {
    ...fact,
    data: { ...fact.data, ...Object.fromEntries(values), net: nets },
  })
}
/** Adds a supplier's basket, at what the supplier says at this moment. */
export async function addQuoteBasket(
  call: Call,
  id: string,
  body: Body<'addQuoteBasket'>,
): Promise<QuoteView> {
  await call.inContext((ctx) => visibleQuote(ctx, id))
  const asked = await askBasket(body.items)
  return call.once(async (ctx) => {
    const quote = await quoteForAct(ctx, id, 'change', body.version)
    const kept = (await quoteLines(ctx.tx, id)).map(asWanted)
    const added = await basketLines(ctx, asked)
    await setLines(ctx, quote, [...kept, ...added])
    await noteOnQuote(ctx, quote, quoteFacts.bought({ number: quote.number, lines: added.length }))
    return quoteView(ctx, id)
  })
}
/** Sends a quote: its paper is frozen as the customer gets it. Without addresses it was handed over. */
export async function sendQuote(ctx: Ctx, id: string, body: Body<'sendQuote'>): Promise<QuoteView> {
  const quote = await quoteForAct(ctx, id, 'send', body.version)
  const lines = await quoteLines(ctx.tx, id)
  if (lines.length === 0) throw invalid('lines', 'There is nothing to offer yet: add a line first.')
  if (body.to.length > MOST_ADDRESSES)
    throw invalid('to', `Send it to ${MOST_ADDRESSES} addresses at most.`)
  if (quote.expiresOn < ctx.today)
    throw invalid('expiresOn', 'Its price was held until a day that has passed. Choose a new one.')
  await withinLimit(ctx, quote, lines)
  await setQuoteState(ctx.tx, id, {
    ...keptOf(quote),
    state: stateAfter(quoteLifecycle, 'send'),
    frozen: await quotePaper(ctx, id, body.layoutId),
    sentAt: ctx.now,
    answeredAt: null,
    answer: '',
  })
  await linkQuote(ctx.tx, id, linkHash(id))
  if (body.to.length > 0) await queueMail(ctx, await quoteMail(ctx, quote, body))
  await noteOnQuote(
    ctx,
    quote,
    quoteFacts.sent({
      number: quote.number,
      addresses: body.to.length,
      total: minorToDecimal(quote.total, quote.currency),
      currency: quote.currency,
    }),
  )
  return quoteView(ctx, id)
}
/** What a quote keeps when its state changes, unless the act says otherwise. */
const keptOf = (quote: QuoteRow) => ({
  frozen: quote.frozen,
  sentAt: quote.sentAt ? Date.parse(quote.sentAt) : null,
  workOrderId: quote.workOrderId,
})
const LINK = '{link}'
async function quoteMail(ctx: Ctx, quote: QuoteRow, body: Body<'sendQuote'>) {
  const { name } = ctx.company
  const text = body.body || (await quoteMailText(ctx, quote))
  return {
    kind: 'quote',
    customerId: quote.customerId,
    invoiceId: null,
    quoteId: quote.id,
    to: body.to,
    subject: body.subject || `${name}: quote ${quote.number}`,
    body: text.includes(LINK) ? text : `${text}\n\nRead it and answer it here: ${LINK}`,
    attach: 'quote' as const,
  }
}
/** Takes a quote back to be changed. A price that nobody holds any more is held anew. */
export async function reopenQuote(ctx: Ctx, id: string, version: number): Promise<QuoteView> {
  const quote = await quoteForAct(ctx, id, 'reopen', version)
  await setQuoteState(ctx.tx, id, {
    ...keptOf(quote),
    state: stateAfter(quoteLifecycle, 'reopen'),
    frozen: null,
    sentAt: null,
    answeredAt: null,
    answer: '',
  })
  if (quote.expiresOn < ctx.today)
    await updateQuote(ctx.tx, { ...quote, expiresOn: plusDays(ctx.today, ctx.company.quoteDays) })
  await noteOnQuote(ctx, quote, quoteFacts.reopened({ number: quote.number }))
  return quoteView(ctx, id)
}
/** The customer's answer. A yes becomes promised work. */
export async function answerQuote(
  ctx: Ctx,
  id: string,
  body: Body<'answerQuote'>,
): Promise<QuoteView> {
  const act = body.accepted ? 'accept' : 'decline'
  await settleQuote(ctx, await quoteForAct(ctx, id, act, body.version), body)
  return quoteView(ctx, id)
}
/** An answer that may be given is kept; a yes makes its work. */
export async function settleQuote(
  ctx: Ctx,
  quote: QuoteRow,
  body: Omit<Body<'answerQuote'>, 'version'>,
): Promise<void> {
  const workOrderId = body.accepted ? await promiseQuote(ctx, quote, body) : quote.workOrderId
  await setQuoteState(ctx.tx, quote.id, {
    ...keptOf(quote),
    state: stateAfter(quoteLifecycle, body.accepted ? 'accept' : 'decline'),
    answeredAt: ctx.now,
    answer: body.words,
    workOrderId,
  })
  const answered = body.accepted ? quoteFacts.accepted : quoteFacts.declined
  await noteOnQuote(
    ctx,
    { ...quote, workOrderId },
    answered({ number: quote.number, words: body.words }),
  )
  if (workOrderId) await refreshWorkOrder(ctx, workOrderId)
}
