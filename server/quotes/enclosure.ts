// What a message about a quote carries: the quote as it was sent.
import { readFont } from '../documents/fonts'
import type { Ctx } from '../http/context'
import type { MessageRow } from '../messages/queries'
import type { Enclosure } from '../subject'
import { quotePdf, type QuoteDrawing } from './pdf'
import { quoteById } from './queries'

export async function encloseQuote(ctx: Ctx, { quoteId }: MessageRow): Promise<Enclosure | null> {
  const quote = quoteId ? await quoteById(ctx.tx, quoteId) : null
  if (!quote?.frozen) return null
  const drawing = quote.frozen as QuoteDrawing
  return { paper: { filename: `${quote.number}.pdf`, draw: () => quotePdf(drawing, readFont) } }
}
