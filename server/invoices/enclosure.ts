// What a message about an invoice carries: the paper as it stands, and the way to its private page.
import { toMoney } from '../../core/money/formatMinor'
import { readFont } from '../documents/fonts'
import type { Ctx } from '../http/context'
import type { MessageRow } from '../messages/queries'
import type { Enclosure } from '../subject'
import { invoicePdf } from './pdf'
import { invoiceById, type InvoiceRow } from './queries'
import { publicLink } from './service'

const invoiceOf = async (ctx: Ctx, { invoiceId }: MessageRow): Promise<InvoiceRow | null> =>
  invoiceId ? await invoiceById(ctx.tx, invoiceId) : null

export async function encloseInvoice(ctx: Ctx, message: MessageRow): Promise<Enclosure | null> {
  const invoice = await invoiceOf(ctx, message)
  if (!invoice) return null
  const { number, paper, paid, open, currency } = invoice
  const draw = () => invoicePdf(paper, toMoney(paid, currency), toMoney(open, currency), readFont)
  return { paper: { filename: `${number}.pdf`, draw } }
}
export async function invoiceLink(ctx: Ctx, message: MessageRow): Promise<string> {
  const invoice = await invoiceOf(ctx, message)
  return invoice ? publicLink(invoice) : ''
}
