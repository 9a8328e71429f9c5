// Card payments through the terminal: the card's number is typed on the terminal's own page and never comes here.
import { LedgerError, notFound } from '../../core/errors/LedgerError'
import { decimalToMinor, minorToDecimal } from '../../core/money/formatMinor'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { customerById } from '../customers/queries'
import { invoiceById, type InvoiceRow } from '../invoices/queries'
import { bookPayment } from './service'
import { chargeById, insertCharge, settleCharge } from './queries'

/** Asks the terminal for a page on which this amount can be paid. The charge is kept first, so an answer that gets lost is found again. */
export async function startCardPayment(ctx: Ctx, invoice: InvoiceRow, token: string): Promise<Answer<'payByCard'>> {
  const terminal = process.env.CARD_URL
  if (!terminal) throw new LedgerError('no_terminal', 503, 'Card payment is not set up. Please pay another way.')
  const chargeId = ctx.id()
  await insertCharge(ctx.tx, { id: chargeId, invoiceId: invoice.id, amount: invoice.open, at: ctx.now })
  const here = (process.env.PUBLIC_URL ?? '').replace(/\/$/, '')
  try {
    const response = await fetch(`${terminal}/charges`, {
      method: 'POST', signal: AbortSignal.timeout(5_000), headers: { 'Content-Type': 'application/json', 'Authorization': `Bearer ${process.env.CARD_SECRET ?? ''}`, 'Idempotency-Key': chargeId },
      body: JSON.stringify({ id: chargeId, amount: minorToDecimal(invoice.open, invoice.currency), currency: invoice.currency, what: `Invoice ${invoice.number}`, back: `${here}/i/${token}`, tell: `${here}/api/v1/webhooks/card` }),
    })
    if (!response.ok) throw new Error(`terminal answered ${response.status}`)
    return { url: ((await response.json()) as { url: string }).url }
  }
  catch {
    throw new LedgerError('terminal_away', 503, 'The card terminal does not answer. Nothing was charged; try again in a moment or pay another way.')
  }
}
/** The terminal's signed word on a charge; told twice, it counts once. */
export async function cardResult(ctx: Ctx, body: Body<'cardResult'>): Promise<Answer<'cardResult'>> {
  const charge = await chargeById(ctx.tx, body.chargeId)
  if (!charge) throw notFound('charge')
  if (charge.state !== 'asked') return { ok: true }
  const invoice = (await invoiceById(ctx.tx, charge.invoiceId))!
  if (decimalToMinor(body.amount, invoice.currency) !== charge.amount) throw new LedgerError('amount_differs', 409, 'The amount is not the one that was asked for.')
  if (body.state === 'declined') {
    await settleCharge(ctx.tx, charge.id, 'declined', body.reference, body.reason, null)
    await record(ctx, { subject: 'invoice', id: invoice.id, workOrderId: invoice.workOrderId, customerId: invoice.customerId, text: `A card was declined for invoice ${invoice.number}: ${body.reason}` })
    return { ok: true }
  }
  const customer = (await customerById(ctx.tx, invoice.customerId))!
  const paymentId = ctx.id()
  await bookPayment(ctx, { id: paymentId, customerId: invoice.customerId, method: 'card', reference: body.reference, amountMinor: charge.amount, receivedOn: ctx.today, invoiceIds: [invoice.id], receiptTo: [customer.email, customer.email2].filter(Boolean) })
  await settleCharge(ctx.tx, charge.id, 'approved', body.reference, '', paymentId)
  return { ok: true }
}
