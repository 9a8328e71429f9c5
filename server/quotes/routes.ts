// The routes of quotes, bound to their service.
import type { quoteRoutes } from '../../shared/quotes'
import { readFont } from '../documents/fonts'
import { Raw, type Handlers } from '../http/route'
import { quotePdf } from './pdf'
import {
  answerQuote,
  beginQuote,
  changeQuote,
  listQuotes,
  quoteDrawing,
  quotePaper,
  reopenQuote,
  sendQuote,
} from './service'

export const quoteHandlers: Handlers<typeof quoteRoutes> = {
  quotes: (ctx, { query }) => listQuotes(ctx, query),
  quote: (ctx, { params }) => quotePaper(ctx, params.id!),
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
