// Acts on payments: taken, come back.
import { setPaid } from '../invoices/index'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { BACK_REASONS, backReasonsOf } from '../../core/payments/takingBack'
import { decimalToMinor, minorToDecimal } from '../../core/money/formatMinor'
import { PAYMENT_ACCOUNT } from '../../core/ledger/accounts'
import { paymentEntry, reversal } from '../../core/ledger/entries'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { invoiceById } from '../invoices/queries'
import { visibleInvoice } from '../invoices/views'
import { post } from '../ledger/queries'
import { refreshWorkOrder } from '../visits/account'
import { allocationsOf, insertAllocation, markTakenBack, paymentById } from './queries'
import { paymentFacts } from './facts'
import { bookPayment } from './booking'

function amountOf(text: string, path: string, currency: string): number {
  try {
    return decimalToMinor(text, currency)
  } catch (error) {
    throw invalid(path, (error as Error).message)
  }
}
export async function pay(ctx: Ctx, body: Body<'pay'>): Promise<Answer<'pay'>> {
  const actor = signedIn(ctx)
  if (actor.role === 'technician') {
    if (body.invoiceIds.length === 0)
      throw invalid('invoiceIds', 'Choose the invoice that is paid.')
    for (const id of body.invoiceIds) await visibleInvoice(ctx, id)
  }
  const amountMinor = amountOf(body.amount, 'amount', ctx.company.currency)
  if (amountMinor <= 0) throw invalid('amount', 'A payment is more than zero.')
  if (body.method === 'cheque' && !body.reference)
    throw invalid('reference', 'Write the number of the cheque.')
  if (body.receivedOn && body.receivedOn > ctx.today)
    throw invalid('receivedOn', 'That day has not come yet.')
  return bookPayment(ctx, {
    id: body.id,
    customerId: body.customerId,
    method: body.method,
    reference: body.reference,
    amountMinor,
    receivedOn: body.receivedOn || ctx.today,
    invoiceIds: body.invoiceIds,
    receiptTo: body.receiptTo,
    mayLeaveCredit: body.mayLeaveCredit,
    shownOpenMinor: body.shownOpen
      ? amountOf(body.shownOpen, 'shownOpen', ctx.company.currency)
      : null,
  })
}
/** A payment that did not hold: its entry is reversed, what it paid is open again. */
export async function takeBack(
  ctx: Ctx,
  id: string,
  { why, reason }: Body<'takeBack'>,
): Promise<Answer<'takeBack'>> {
  const p = await paymentById(ctx.tx, id)
  if (!p) throw notFound('payment')
  if (p.bouncedOn) throw conflict('already_bounced', 'This payment has been taken back already.')
  if (!backReasonsOf(p.method).includes(why))
    throw invalid('why', `A payment by ${p.method} is not taken back for that.`)
  const applied = await allocationsOf(ctx.tx, id)
  for (const a of applied) {
    const invoice = (await invoiceById(ctx.tx, a.invoiceId, true))!
    const back = { invoiceId: a.invoiceId, amount: -a.amount, on: ctx.today }
    await insertAllocation(ctx.tx, { ...back, id: ctx.id(), paymentId: id })
    await setPaid(ctx.tx, a.invoiceId, invoice.paid - a.amount, null)
    if (invoice.workOrderId) await refreshWorkOrder(ctx, invoice.workOrderId)
  }
  const postings = paymentEntry({
    account: PAYMENT_ACCOUNT[p.method],
    amountMinor: p.amount,
    appliedMinor: applied.reduce((sum, a) => sum + a.amount, 0),
  })
  await post(ctx.tx, {
    on: ctx.today,
    kind: 'bounce',
    sourceId: id,
    memo: `${p.number} ${BACK_REASONS[why].said}: ${reason}`,
    customerId: p.customerId,
    at: ctx.now,
    postings: reversal(postings),
  })
  await markTakenBack(ctx.tx, id, ctx.today, why)
  await record(ctx, {
    subject: 'payment',
    id,
    customerId: p.customerId,
    fact: paymentFacts.takenBack({
      ...{ number: p.number, method: p.method, reference: p.reference, why, reason },
      amount: minorToDecimal(p.amount, ctx.company.currency),
      currency: ctx.company.currency,
    }),
  })
  return { ok: true }
}
