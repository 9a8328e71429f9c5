// Card payments through the terminal: the card's number is typed on the terminal's own page and never comes here.
// What is asked for is kept first, then the terminal is called, in no transaction; an answer that got
// lost is asked for again, and what was approved beyond what is open is given back.
import { conflict, LedgerError, notFound } from '../../core/errors/LedgerError'
import { decimalToMinor, minorToDecimal } from '../../core/money/formatMinor'
import { MINUTE } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import type { Call } from '../http/route'
import { invoiceById, type InvoiceRow } from '../invoices/queries'
import { invoiceAtLink } from '../invoices/views'
import { enqueue } from '../jobs/jobs'
import { askedCharge, chargeById, insertCharge, settleCharge, type ChargeRow } from './queries'
import { bookPayment } from './booking'
import { ask, type Asked } from './terminal'
import { config } from '../config'
import { paymentFacts } from './facts'

/** When the terminal is asked what became of a charge that it was silent about. */
const FIRST_LOOK_MS = 2 * MINUTE

/** The one charge that is open for what is open on this invoice: a second page, or a second press, is the same one. */
async function chargeFor(
  ctx: Ctx,
  token: string,
): Promise<{ invoice: InvoiceRow; chargeId: string }> {
  const found = await invoiceAtLink(ctx, token)
  const invoice = (await invoiceById(ctx.tx, found.id, true))!
  if (invoice.open <= 0) throw conflict('already_paid', 'This invoice is paid. Thank you.')
  const known = await askedCharge(ctx.tx, invoice.id, invoice.open)
  if (known) return { invoice, chargeId: known.id }
  const chargeId = ctx.id()
  await insertCharge(ctx.tx, {
    id: chargeId,
    invoiceId: invoice.id,
    amount: invoice.open,
    at: ctx.now,
  })
  await enqueue(ctx.tx, {
    kind: 'card.look',
    key: chargeId,
    payload: { chargeId },
    runAt: Date.now() + FIRST_LOOK_MS,
  })
  return { invoice, chargeId }
}
/** Where the customer types the card. The charge is committed before the terminal hears of it. */
export async function startCardPayment(call: Call, token: string): Promise<Answer<'payByCard'>> {
  if (!config.connectionTo('card').address)
    throw new LedgerError('no_terminal', 'Card payment is not set up. Please pay another way.')
  const { invoice, chargeId } = await call.inContext((ctx) => chargeFor(ctx, token))
  const here = config.publicUrl
  const wanted: Asked = {
    id: chargeId,
    amount: minorToDecimal(invoice.open, invoice.currency),
    currency: invoice.currency,
    what: `Invoice ${invoice.number}`,
    back: `${here}/i/${token}`,
    tell: `${here}/api/v1/webhooks/card`,
  }
  const page = await ask<{ url?: unknown }>('POST', '/charges', wanted)
  if (typeof page?.url !== 'string')
    throw new LedgerError(
      'terminal_away',
      'The card terminal does not answer. Nothing was charged; try again in a moment or pay another way.',
    )
  return { url: page.url }
}

const aboutInvoice = (invoice: InvoiceRow) => ({
  subject: 'invoice',
  id: invoice.id,
  workOrderId: invoice.workOrderId,
  customerId: invoice.customerId,
})

/** Books what the terminal says of a charge; told twice, it counts once. */
export async function settle(
  ctx: Ctx,
  chargeId: string,
  said: { state: 'approved' | 'declined'; reference: string; reason: string },
): Promise<void> {
  const charge = await chargeById(ctx.tx, chargeId)
  if (!charge) throw notFound('charge')
  // A card that was declined may be followed by another one on the same page: money that came is never overlooked.
  const open =
    charge.state === 'asked' || (charge.state === 'declined' && said.state === 'approved')
  if (!open) return
  const invoice = (await invoiceById(ctx.tx, charge.invoiceId))!
  // The customer first, then the invoice: as every payment locks them.
  const customer = (await customerById(ctx.tx, invoice.customerId, true))!
  const now = (await invoiceById(ctx.tx, charge.invoiceId, true))!
  if (said.state === 'declined') {
    await settleCharge(ctx.tx, {
      id: charge.id,
      state: 'declined',
      reference: said.reference,
      reason: said.reason,
      paymentId: null,
      at: ctx.now,
    })
    await record(ctx, {
      ...aboutInvoice(invoice),
      fact: paymentFacts.declined({ invoice: invoice.number, reason: said.reason }),
    })
    return
  }
  if (now.open < charge.amount) return giveBack(ctx, charge, now, said.reference)
  const paymentId = ctx.id()
  await bookPayment(ctx, {
    id: paymentId,
    customerId: invoice.customerId,
    method: 'card',
    reference: said.reference,
    amountMinor: charge.amount,
    receivedOn: ctx.today,
    invoiceIds: [invoice.id],
    receiptTo: [customer.email, customer.email2].filter(Boolean),
    mayLeaveCredit: false,
  })
  await settleCharge(ctx.tx, {
    id: charge.id,
    state: 'approved',
    reference: said.reference,
    reason: '',
    paymentId,
    at: ctx.now,
  })
}
/** Approved, but no longer open: it is not booked, it goes back, and the worklist says so. */
async function giveBack(
  ctx: Ctx,
  charge: ChargeRow,
  invoice: InvoiceRow,
  reference: string,
): Promise<void> {
  const reason = `only ${minorToDecimal(invoice.open, invoice.currency)} was open`
  await settleCharge(ctx.tx, {
    id: charge.id,
    state: 'refunding',
    reference,
    reason,
    paymentId: null,
    at: ctx.now,
  })
  await enqueue(ctx.tx, {
    kind: 'card.refund',
    key: charge.id,
    payload: { chargeId: charge.id },
  })
  await record(ctx, {
    ...aboutInvoice(invoice),
    fact: paymentFacts.givenBack({
      amount: minorToDecimal(charge.amount, invoice.currency),
      invoice: invoice.number,
      reason,
    }),
  })
}
/** The terminal's signed word on a charge. */
export async function cardResult(
  ctx: Ctx,
  body: Body<'cardResult'>,
): Promise<Answer<'cardResult'>> {
  const charge = await chargeById(ctx.tx, body.chargeId)
  if (!charge) throw notFound('charge')
  const invoice = (await invoiceById(ctx.tx, charge.invoiceId))!
  if (decimalToMinor(body.amount, invoice.currency) !== charge.amount)
    throw new LedgerError('amount_differs', 'The amount is not the one that was asked for.')
  await settle(ctx, body.chargeId, body)
  return { ok: true }
}
/** Notes that the terminal gave a charge back. */
export async function noteRefunded(ctx: Ctx, chargeId: string): Promise<void> {
  const charge = await chargeById(ctx.tx, chargeId)
  if (charge?.state !== 'refunding') return
  const invoice = (await invoiceById(ctx.tx, charge.invoiceId))!
  await settleCharge(ctx.tx, {
    id: charge.id,
    state: 'refunded',
    reference: charge.reference,
    reason: charge.reason,
    paymentId: null,
    at: ctx.now,
  })
  await record(ctx, {
    ...aboutInvoice(invoice),
    fact: paymentFacts.wentBack({
      amount: minorToDecimal(charge.amount, invoice.currency),
      invoice: invoice.number,
    }),
  })
}
