// What a message about an invoice carries: the paper as it stands, and the way to its private page.
import { drawing } from '../documents/drawn'
import type { Ctx } from '../http/context'
import type { MessageRow } from '../messages/queries'
import type { Enclosure } from '../subject'
import { publicLink } from './link'
import { invoiceById, type InvoiceRow } from './queries'
import { documentOf } from './views'

const invoiceOf = async (ctx: Ctx, { invoiceId }: MessageRow): Promise<InvoiceRow | null> =>
  invoiceId ? await invoiceById(ctx.tx, invoiceId) : null

export async function encloseInvoice(ctx: Ctx, message: MessageRow): Promise<Enclosure | null> {
  const invoice = await invoiceOf(ctx, message)
  if (!invoice) return null
  const draw = await drawing(ctx, documentOf(invoice))
  return { paper: { filename: `${invoice.number}.pdf`, draw } }
}
export async function invoiceLink(ctx: Ctx, message: MessageRow): Promise<string> {
  const invoice = await invoiceOf(ctx, message)
  return invoice ? publicLink(invoice) : ''
}
