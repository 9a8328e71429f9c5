// The invoices as papers, for the archive of everything.
import { drawing } from '../documents/drawn'
import type { Ctx } from '../http/context'
import type { KeptPaper } from '../subject'
import { invoiceById, invoiceNumbers } from './queries'
import { documentOf } from './views'

export async function invoicePapers(ctx: Ctx): Promise<KeptPaper[]> {
  return (await invoiceNumbers(ctx.tx)).map(({ id, number, createdAt }) => ({
    path: `invoices/${number.replace(/[^\w.-]/g, '_')}-${id}.pdf`,
    draw: async () => {
      const invoice = (await invoiceById(ctx.tx, id))!
      return (await drawing(ctx, documentOf(invoice), new Date(createdAt)))()
    },
  }))
}
