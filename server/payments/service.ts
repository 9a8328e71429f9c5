// Payments: applied to invoices in one transaction with their posting; a bounced cheque reverses all of it.
import { conflict, forbidden, invalid, notFound } from '../../core/errors/LedgerError'
import { decimalToMinor, minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { applyPayment } from '../../core/payments/applyPayment'
import { PAYMENT_ACCOUNT } from '../../core/ledger/accounts'
import { paymentEntry, reversal } from '../../core/ledger/entries'
import type { Answer, Body, Query } from '../../shared/api'
import { customerById } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { record } from '../http/queries'
import { invoiceById, openInvoices, setPaid } from '../invoices/queries'
import { visibleInvoice } from '../invoices/service'
import { post } from '../ledger/queries'
import { queueMail } from '../messages/service'
import { nextNumber } from '../settings/queries'
import { refreshWorkOrder } from '../visits/account'
import { allocationsOf, insertAllocation, insertPayment, markBounced, paymentById, paymentPage, type PaymentRow } from './queries'

interface Taken { id: string, customerId: string, method: PaymentRow['method'], reference: string, amountMinor: number, receivedOn: string, invoiceIds: string[], receiptTo: string[] }
/** Books a payment, whoever took it; the customer's invoices stay locked meanwhile. */
export async function bookPayment(ctx: Ctx, p: Taken): Promise<Answer<'pay'>> {
  const { tx } = ctx
  const customer = await customerById(tx, p.customerId, true)
  if (!customer) throw invalid('customerId', 'There is no such customer.')
  const open = await openInvoices(tx, p.customerId, p.invoiceIds.length ? p.invoiceIds : null, true)
  const { applied, leftMinor } = applyPayment(p.amountMinor, open, p.invoiceIds.length ? p.invoiceIds : undefined)
  const number = await nextNumber(tx, 'receipt')
  await insertPayment(tx, { id: p.id, number, customerId: p.customerId, method: p.method, reference: p.reference, amount: p.amountMinor, on: p.receivedOn, by: ctx.actor?.id ?? null, at: ctx.now })
  const m = (minor: number) => toMoney(minor, ctx.company.currency)
  const told: Answer<'pay'>['applied'] = []
  for (const a of applied) {
    const invoice = open.find(i => i.id === a.id)!
    await insertAllocation(tx, ctx.id(), p.id, a.id, a.amountMinor, p.receivedOn)
    const left = invoice.balanceMinor - a.amountMinor
    await setPaid(tx, a.id, invoice.paid + a.amountMinor, left === 0 ? p.receivedOn : null)
    told.push({ invoiceId: a.id, number: invoice.number, amount: m(a.amountMinor), open: m(left) })
  }
  await post(tx, { on: p.receivedOn, kind: 'payment', sourceId: p.id, memo: `${number} ${customer.name} ${p.method}`, customerId: p.customerId, at: ctx.now, postings: paymentEntry({ account: PAYMENT_ACCOUNT[p.method], amountMinor: p.amountMinor, appliedMinor: p.amountMinor - leftMinor }) })
  for (const workOrderId of new Set(open.filter(i => applied.some(a => a.id === i.id)).flatMap(i => i.workOrderId ?? []))) {
    await refreshWorkOrder(ctx, workOrderId)
    await record(ctx, { subject: 'payment', id: p.id, workOrderId, customerId: p.customerId, text: `${minorToDecimal(p.amountMinor, ctx.company.currency)} paid by ${p.method}${p.reference ? ` (${p.reference})` : ''}, receipt ${number}` })
  }
  if (applied.length === 0) await record(ctx, { subject: 'payment', id: p.id, customerId: p.customerId, text: `${minorToDecimal(p.amountMinor, ctx.company.currency)} paid by ${p.method}, not applied to an invoice, receipt ${number}` })
  if (p.receiptTo.length) {
    const money = (minor: number) => new Intl.NumberFormat(ctx.company.locale, { style: 'currency', currency: ctx.company.currency }).format(minorToDecimal(minor, ctx.company.currency) as unknown as number)
    const lines = applied.map((a) => {
      const i = open.find(x => x.id === a.id)!
      return `${i.number}: ${money(a.amountMinor)}${i.balanceMinor - a.amountMinor ? `, still open ${money(i.balanceMinor - a.amountMinor)}` : ', paid in full'}`
    })
    await queueMail(ctx, { kind: 'receipt', customerId: p.customerId, invoiceId: applied[0]?.id ?? null, to: p.receiptTo, subject: `${ctx.company.name}: receipt ${number}`, body: [`We received ${money(p.amountMinor)} by ${p.method}${p.reference ? ` (${p.reference})` : ''} on ${p.receivedOn}.`, '', ...lines, ...(leftMinor ? [`Kept as a credit: ${money(leftMinor)}`] : []), '', 'Thank you.', ctx.company.name].join('\n'), attach: 'none' })
  }
  return { id: p.id, number, amount: m(p.amountMinor), applied: told, left: m(leftMinor) }
}

export async function pay(ctx: Ctx, body: Body<'pay'>): Promise<Answer<'pay'>> {
  const actor = signedIn(ctx)
  if (!actor.takesMoney) throw forbidden('You may not take payments.')
  if (actor.role === 'technician') {
    if (body.invoiceIds.length === 0) throw invalid('invoiceIds', 'Choose the invoice that is paid.')
    for (const id of body.invoiceIds) await visibleInvoice(ctx, id)
  }
  let amountMinor: number
  try {
    amountMinor = decimalToMinor(body.amount, ctx.company.currency)
  }
  catch (error) {
    throw invalid('amount', (error as Error).message)
  }
  if (amountMinor <= 0) throw invalid('amount', 'A payment is more than zero.')
  if (body.method === 'cheque' && !body.reference) throw invalid('reference', 'Write the number of the cheque.')
  if (body.receivedOn && body.receivedOn > ctx.today) throw invalid('receivedOn', 'That day has not come yet.')
  return bookPayment(ctx, { id: body.id, customerId: body.customerId, method: body.method, reference: body.reference, amountMinor, receivedOn: body.receivedOn || ctx.today, invoiceIds: body.invoiceIds, receiptTo: body.receiptTo })
}

/** A cheque came back: the payment's entry is reversed, what it paid is open again. */
export async function bounce(ctx: Ctx, id: string, reason: string): Promise<Answer<'bounce'>> {
  const p = await paymentById(ctx.tx, id)
  if (!p) throw notFound('payment')
  if (p.bouncedOn) throw conflict('already_bounced', 'This payment has been reversed already.')
  const applied = await allocationsOf(ctx.tx, id)
  for (const a of applied) {
    const invoice = (await invoiceById(ctx.tx, a.invoiceId, true))!
    await insertAllocation(ctx.tx, ctx.id(), id, a.invoiceId, -a.amount, ctx.today)
    await setPaid(ctx.tx, a.invoiceId, invoice.paid - a.amount, null)
    if (invoice.workOrderId) await refreshWorkOrder(ctx, invoice.workOrderId)
  }
  const postings = paymentEntry({ account: PAYMENT_ACCOUNT[p.method], amountMinor: p.amount, appliedMinor: applied.reduce((sum, a) => sum + a.amount, 0) })
  await post(ctx.tx, { on: ctx.today, kind: 'bounce', sourceId: id, memo: `${p.number} came back: ${reason}`, customerId: p.customerId, at: ctx.now, postings: reversal(postings) })
  await markBounced(ctx.tx, id, ctx.today)
  await record(ctx, { subject: 'payment', id, customerId: p.customerId, text: `${p.number} (${p.method} ${p.reference}) came back: ${reason}` })
  return { ok: true }
}
export async function listPayments(ctx: Ctx, query: Query<'payments'>): Promise<Answer<'payments'>> {
  const p = paging(query, ['received'], '-received')
  const { rows, total } = await paymentPage(ctx.tx, { ...p, q: query.q ?? '' })
  return pageOf(rows, total, p.limit, r => ({ id: r.id, number: r.number, customer: r.customer, method: r.method, reference: r.reference, on: r.on, amount: toMoney(r.amount, ctx.company.currency), bounced: r.bouncedOn !== null, takenBy: r.takenBy ?? 'customer' }))
}
