// The routes of quotes, bound to what they do.
import type { quoteRoutes } from '../../shared/quotes'
import { readFont } from '../documents/fonts'
import { Raw, type Handlers } from '../http/route'
import { quotePdf } from './pdf'
import { answerQuote, changeQuote, reopenQuote, sendQuote } from './commands'
import { listQuotes, quoteDrawing, quoteView } from './views'
import { beginQuote } from './begin'

export const quoteHandlers: Handlers<typeof quoteRoutes> = {
  quotes: (ctx, { query }) => listQuotes(ctx, query),
  quote: (ctx, { params }) => quoteView(ctx, params.id!),
  async quotePdf(ctx, { params }) {
    const drawing = await quoteDrawing(ctx, params.id!)
    return new Raw('application/pdf', () => quotePdf(drawing, readFont), `${drawing.number}.pdf`)
  },
  beginQuote: (ctx, { body }) => beginQuote(ctx, body),
  changeQuote: (ctx, { params, body }) => changeQuote(ctx, params.id!, body),
  sendQuote: (ctx, { params, body }) => sendQuote(ctx, params.id!, body),
  reopenQuote: (ctx, { params, body }) => reopenQuote(ctx, params.id!, body.version),
  answerQuote: (ctx, { params, body }) => answerQuote(ctx, params.id!, body),
}
