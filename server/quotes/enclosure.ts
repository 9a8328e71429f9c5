// What a message about a quote carries: the quote as it was sent.
import { quoteDocument, type QuotePaper } from '../../core/quotes/quoteDocument'
import { drawing } from '../documents/drawn'
import type { Ctx } from '../http/context'
import type { MessageRow } from '../messages/queries'
import type { Enclosure } from '../subject'
import { quoteById } from './queries'

export async function encloseQuote(ctx: Ctx, { quoteId }: MessageRow): Promise<Enclosure | null> {
  const quote = quoteId ? await quoteById(ctx.tx, quoteId) : null
  if (!quote?.frozen) return null
  const document = quoteDocument(quote.frozen as QuotePaper)
  return { paper: { filename: `${quote.number}.pdf`, draw: await drawing(ctx, document) } }
}
