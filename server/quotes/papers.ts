// The quotes as papers, as they were sent, for the archive of everything.
import { quoteDocument, type QuotePaper } from '../../core/quotes/quoteDocument'
import { drawing } from '../documents/drawn'
import type { Ctx } from '../http/context'
import type { KeptPaper } from '../subject'
import { quoteById, sentQuotes } from './queries'

export async function quotePapers(ctx: Ctx): Promise<KeptPaper[]> {
  return (await sentQuotes(ctx.tx)).map(({ id, number, createdAt }) => ({
    path: `quotes/${number.replace(/[^\w.-]/g, '_')}-${id}.pdf`,
    draw: async () => {
      const { frozen } = (await quoteById(ctx.tx, id))!
      const paper = quoteDocument(frozen as QuotePaper)
      return (await drawing(ctx, paper, new Date(createdAt)))()
    },
  }))
}
