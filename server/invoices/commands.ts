// Acts on an invoice that was made: sent or handed over, and the customer's private link to it.
import { canAct } from '../../core/documents/lifecycle'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { invoiceLifecycle, type InvoiceAct } from '../../core/invoices/invoiceLifecycle'
import { invoiceState } from '../../core/invoices/invoiceState'
import type { Body } from '../../shared/api'
import { hashToken, linkToken } from '../access/session'
import type { Ctx } from '../http/context'
import type { Fact } from '../http/facts'
import { record } from '../http/queries'
import { queueMail } from '../messages/service'
import { invoiceFacts } from './facts'
import { LINK_MS } from './link'
import { invoiceById, markSent, setLink, type InvoiceRow } from './queries'
import { invoiceMail, invoiceView, visibleInvoice, type InvoiceView } from './views'

const MOST_ADDRESSES = 4
/** Refuses what the state of the invoice does not allow. */
function guard(invoice: InvoiceRow, act: InvoiceAct): void {
  if (!canAct(invoiceLifecycle, act, invoiceState(invoice)))
    throw conflict('invoice_closed', 'This invoice is void or written off.')
}
const note = (ctx: Ctx, invoice: InvoiceRow, fact: Fact): Promise<void> =>
  record(ctx, {
    subject: 'invoice',
    id: invoice.id,
    workOrderId: invoice.workOrderId,
    customerId: invoice.customerId,
    fact,
  })

export async function mailInvoice(
  ctx: Ctx,
  id: string,
  mail: { to: string[]; subject: string; body: string },
): Promise<void> {
  const invoice = (await invoiceById(ctx.tx, id))!
  if (mail.to.length > MOST_ADDRESSES)
    throw invalid('to', `Send it to ${MOST_ADDRESSES} addresses at most.`)
  const text = mail.body || invoiceMail(ctx, invoice)
  await queueMail(ctx, {
    kind: 'invoice',
    customerId: invoice.customerId,
    invoiceId: id,
    to: mail.to,
    subject: mail.subject || `${ctx.company.name}: invoice ${invoice.number}`,
    body: text.includes('{link}') ? text : `${text}\n\n{link}`,
    attach: 'invoice',
  })
  await markSent(ctx.tx, id)
  await note(ctx, invoice, invoiceFacts.sent({ number: invoice.number, addresses: mail.to.length }))
}
/** Sends an invoice by mail; without addresses it was handed over on paper. */
export async function sendInvoice(
  ctx: Ctx,
  id: string,
  mail: Body<'sendInvoice'>,
): Promise<InvoiceView> {
  const invoice = await visibleInvoice(ctx, id)
  guard(invoice, 'send')
  if (mail.to.length) await mailInvoice(ctx, id, mail)
  else {
    await markSent(ctx.tx, id)
    await note(ctx, invoice, invoiceFacts.handedOver({ number: invoice.number }))
  }
  return invoiceView(ctx, id)
}
/** Ends the customer's link, or makes another one in its place. */
export async function changeLink(ctx: Ctx, id: string, renew: boolean): Promise<InvoiceView> {
  const invoice = await invoiceById(ctx.tx, id, true)
  if (!invoice) throw notFound('invoice')
  guard(invoice, 'link')
  const turn = invoice.linkTurn + 1
  await setLink(
    ctx.tx,
    id,
    renew
      ? { turn, tokenHash: hashToken(linkToken('invoice', id, turn)), until: ctx.now + LINK_MS }
      : { turn: invoice.linkTurn, tokenHash: null, until: null },
  )
  const fact = renew ? invoiceFacts.linkRenewed : invoiceFacts.linkWithdrawn
  await note(ctx, invoice, fact({ number: invoice.number }))
  return invoiceView(ctx, id)
}
