// The routes of quotes, bound to what they do.
import type { quoteRoutes } from '../../shared/quotes'
import { quoteDocument, type QuotePaper } from '../../core/quotes/quoteDocument'
import { drawing } from '../documents/drawn'
import type { Ctx } from '../http/context'
import { Raw, type Handlers } from '../http/route'
import { answerQuote, changeQuote, reopenQuote, sendQuote } from './commands'
import { listQuotes, quotePaper, quoteEarlier, quoteView } from './views'
import { answerAtLink, noteQuoteOpened, paperAtLink, publicQuote } from './customersPage'
import { beginQuote } from './begin'
import { copyQuote } from './copy'

const pdf = async (ctx: Ctx, paper: QuotePaper) =>
  new Raw('application/pdf', await drawing(ctx, quoteDocument(paper)), `${paper.number}.pdf`)

export const quoteHandlers: Handlers<typeof quoteRoutes> = {
  quotes: (ctx, { query }) => listQuotes(ctx, query),
  quote: (ctx, { params }) => quoteView(ctx, params.id!),
  quoteEarlier: (ctx, { params, query }) => quoteEarlier(ctx, params.id!, query.before),
  quotePdf: async (ctx, { params }) => pdf(ctx, await quotePaper(ctx, params.id!)),
  publicQuote: (ctx, { params }) => publicQuote(ctx, params.token!),
  publicQuotePdf: async (ctx, { params }) => pdf(ctx, await paperAtLink(ctx, params.token!)),
  // Told by the page once a person looks at it: programs that follow the links in mails open nothing.
  async seenQuote(ctx, { params }) {
    await noteQuoteOpened(ctx, params.token!)
    return { ok: true }
  },
  async answerPublicQuote(ctx, { params, body }) {
    await answerAtLink(ctx, params.token!, body)
    return { ok: true }
  },
  beginQuote: (ctx, { body }) => beginQuote(ctx, body),
  copyQuote: (ctx, { params, body }) => copyQuote(ctx, params.id!, body.id),
  changeQuote: (ctx, { params, body }) => changeQuote(ctx, params.id!, body),
  sendQuote: (ctx, { params, body }) => sendQuote(ctx, params.id!, body),
  reopenQuote: (ctx, { params, body }) => reopenQuote(ctx, params.id!, body.version),
  answerQuote: (ctx, { params, body }) => answerQuote(ctx, params.id!, body),
}
