// The routes of quotes, bound to what they do.
import type { quoteRoutes } from '../../shared/quotes'
import { quoteDocument } from '../../core/quotes/quoteDocument'
import { paperPdf } from '../documents/paperPdf'
import { Raw, type Handlers } from '../http/route'
import { answerQuote, changeQuote, reopenQuote, sendQuote } from './commands'
import { listQuotes, quotePaper, quoteEarlier, quoteView } from './views'
import { beginQuote } from './begin'
import { copyQuote } from './copy'

export const quoteHandlers: Handlers<typeof quoteRoutes> = {
  quotes: (ctx, { query }) => listQuotes(ctx, query),
  quote: (ctx, { params }) => quoteView(ctx, params.id!),
  quoteEarlier: (ctx, { params, query }) => quoteEarlier(ctx, params.id!, query.before),
  async quotePdf(ctx, { params }) {
    const paper = await quotePaper(ctx, params.id!)
    const draw = () => paperPdf(quoteDocument(paper))
    return new Raw('application/pdf', draw, `${paper.number}.pdf`)
  },
  beginQuote: (ctx, { body }) => beginQuote(ctx, body),
  copyQuote: (ctx, { params, body }) => copyQuote(ctx, params.id!, body.id),
  changeQuote: (ctx, { params, body }) => changeQuote(ctx, params.id!, body),
  sendQuote: (ctx, { params, body }) => sendQuote(ctx, params.id!, body),
  reopenQuote: (ctx, { params, body }) => reopenQuote(ctx, params.id!, body.version),
  answerQuote: (ctx, { params, body }) => answerQuote(ctx, params.id!, body),
}
