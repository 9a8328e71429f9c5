// A paper as PDF, with the logo that it was made with: what it needs is read in a transaction, and it is drawn in none.
import type { PaperDocument } from '../../core/documents/paperDocument'
import type { Ctx } from '../http/context'
import { logoById } from '../settings/firm.queries'
import { paperPdf } from './paperPdf'

export async function drawing(
  ctx: Ctx,
  paper: PaperDocument,
  madeAt?: Date,
): Promise<() => Promise<Buffer>> {
  const { logoId } = paper.seller
  const logo = logoId ? await logoById(ctx.tx, logoId) : null
  return () => paperPdf(paper, { logo, ...(madeAt && { madeAt }) })
}
