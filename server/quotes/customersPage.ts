// The customer's private page of a quote: what it shows, and the answer that is given there.
import { conflict, notFound } from '../../core/errors/LedgerError'
import type { QuotePaper } from '../../core/quotes/quoteDocument'
import { quoteState } from '../../core/quotes/quoteState'
import type { Answer, Body } from '../../shared/api'
import { hashToken } from '../access/session'
import type { Ctx } from '../http/context'
import type { MessageRow } from '../messages/queries'
import { settleQuote } from './commands'
import { noteOnQuote } from './draft'
import { quoteFacts } from './facts'
import { quoteLink } from './link'
import { markOpened, quoteById, quoteByToken, type QuoteRow } from './queries'
import { refusalOf } from './refusals'

/** Where the quote of a message is read. */
export async function linkOfMessage(ctx: Ctx, { quoteId }: MessageRow): Promise<string> {
  const quote = quoteId ? await quoteById(ctx.tx, quoteId) : null
  return quote ? quoteLink(quote) : ''
}
async function quoteAtLink(ctx: Ctx, token: string, lock = false): Promise<QuoteRow> {
  const quote = await quoteByToken(ctx.tx, hashToken(token), lock)
  if (!quote) throw notFound('quote at this address')
  return quote
}
/** What the customer is shown: the quote as it was sent last. One that was taken back is not there until it is sent again. */
export async function publicQuote(ctx: Ctx, token: string): Promise<Answer<'publicQuote'>> {
  const quote = await quoteAtLink(ctx, token)
  return {
    number: quote.number,
    version: quote.version,
    state: quoteState(quote, ctx.today),
    paper: quote.frozen as QuotePaper | null,
    phone: ctx.company.phone,
  }
}
/** The paper of a quote, for whoever has its address. */
export async function paperAtLink(ctx: Ctx, token: string): Promise<QuotePaper> {
  const { frozen } = await quoteAtLink(ctx, token)
  if (!frozen) throw notFound('quote at this address')
  return frozen as QuotePaper
}
/** A person looks at it; the first time since it was sent stands in its history. */
export async function noteQuoteOpened(ctx: Ctx, token: string): Promise<void> {
  const quote = await quoteAtLink(ctx, token)
  if (quote.frozen && (await markOpened(ctx.tx, quote.id, ctx.now)))
    await noteOnQuote(ctx, quote, quoteFacts.opened({ number: quote.number }))
}
/** The customer answers on the page, to the version that they see; a yes becomes work as one on the telephone does. */
export async function answerAtLink(
  ctx: Ctx,
  token: string,
  body: Body<'answerPublicQuote'>,
): Promise<void> {
  const quote = await quoteAtLink(ctx, token, true)
  const refusal = refusalOf(quote, body.accepted ? 'accept' : 'decline', ctx.today)
  if (refusal) throw refusal
  // A draft is nothing that a customer has.
  if (!quote.frozen) throw conflict('quote_draft', 'This quote is being changed at the moment.')
  if (quote.version !== body.version)
    throw conflict('stale', 'This quote was changed meanwhile. Please read it once more.')
  const said = body.words ? `: ${body.words}` : ''
  await settleQuote(ctx, quote, {
    accepted: body.accepted,
    words: `${body.name}, on the page of the quote${said}`,
    workOrderId: ctx.id(),
    visitId: ctx.id(),
  })
}
