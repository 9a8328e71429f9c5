// How a payment is booked: applied to invoices, posted, receipted.
import { setPaid } from '../invoices/index'
import { sayDay } from '../../core/time/sayDay'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { applyPayment } from '../../core/payments/applyPayment'
import { PAYMENT_ACCOUNT } from '../../core/ledger/accounts'
import { applicationEntry, paymentEntry } from '../../core/ledger/entries'
import type { Answer } from '../../shared/api'
import { customerById } from '../customers/queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { invoicesNamed, openInvoices } from '../invoices/queries'
import { post } from '../ledger/queries'
import { queueMail } from '../messages/service'
import { nextNumber } from '../settings/numbers'
import { refreshWorkOrder } from '../visits/account'
import { insertAllocation, insertPayment, paymentById, type PaymentRow } from './queries'
import { sayMoney } from '../../core/money/sayMoney'
import { paymentFacts } from './facts'

interface Taken {
  id: string
  customerId: string
  method: PaymentRow['method']
  reference: string
  amountMinor: number
  receivedOn: string
  invoiceIds: string[]
  receiptTo: string[]
  /** what the screen showed as open, when that matters */
  shownOpenMinor?: number | null
  /** somebody said that what is too much is kept as a credit */
  mayLeaveCredit: boolean
}
type OpenRow = Awaited<ReturnType<typeof openInvoices>>[number]
const later = (a: string, b: string) => (a > b ? a : b)
/** Every invoice that is named must be this customer's and open: money for another one is never taken silently. */
async function checkNamed(ctx: Ctx, p: Taken): Promise<void> {
  const known = new Map((await invoicesNamed(ctx.tx, p.invoiceIds)).map((i) => [i.id, i]))
  for (const [n, id] of p.invoiceIds.entries()) {
    const invoice = known.get(id)
    if (invoice?.customerId !== p.customerId)
      throw invalid(`invoiceIds[${n}]`, 'This is no invoice of this customer.')
    if (invoice.open === 0)
      throw conflict(
        'already_paid',
        `Nothing is open on ${invoice.number} any more: somebody else took a payment for it. Look at it again before you take money.`,
      )
  }
}
/** What the screen showed, and what is too much, are settled before a number is given to a receipt. */
function checkSums(ctx: Ctx, p: Taken, open: readonly OpenRow[]): void {
  const openMinor = open.reduce((sum, i) => sum + i.balanceMinor, 0)
  const money = (minor: number) => toMoney(minor, ctx.company.currency)
  if (p.shownOpenMinor != null && p.shownOpenMinor !== openMinor) {
    throw conflict(
      'open_changed',
      'What is open changed since you looked, perhaps by this very payment. Look at it again.',
      { shown: money(p.shownOpenMinor), open: money(openMinor) },
    )
  }
  if (p.amountMinor > openMinor && !p.mayLeaveCredit) {
    throw conflict(
      'more_than_open',
      openMinor
        ? 'This is more than is open. Say that the rest is kept as a credit, or correct the amount.'
        : 'Nothing is open here. Say that it is kept as a credit, or look for the right invoice.',
      { open: money(openMinor), over: money(p.amountMinor - openMinor) },
    )
  }
}
/** Applies money to one invoice. Where the invoice is younger than the money, the money stood in the customer's favour until its day. */
async function applyTo(
  ctx: Ctx,
  p: Taken,
  invoice: OpenRow,
  { amountMinor, memo }: { amountMinor: number; memo: string },
): Promise<void> {
  const on = later(p.receivedOn, invoice.bookedOn)
  const allocationId = ctx.id()
  await insertAllocation(ctx.tx, {
    id: allocationId,
    paymentId: p.id,
    invoiceId: invoice.id,
    amount: amountMinor,
    on,
  })
  await setPaid(
    ctx.tx,
    invoice.id,
    invoice.paid + amountMinor,
    invoice.balanceMinor === amountMinor ? on : null,
  )
  if (on > p.receivedOn)
    await post(ctx.tx, {
      on,
      kind: 'application',
      sourceId: allocationId,
      memo,
      customerId: p.customerId,
      at: ctx.now,
      postings: applicationEntry(amountMinor),
    })
}
type Applied = readonly { id: string; amountMinor: number }[]
/** Whose payment it is; one that was booked already is not booked again. */
async function payerOf(ctx: Ctx, p: Taken) {
  const customer = await customerById(ctx.tx, p.customerId, true)
  if (!customer) throw invalid('customerId', 'There is no such customer.')
  const same = await paymentById(ctx.tx, p.id)
  if (!same) return customer
  const { number } = same
  throw conflict('exists', `This payment has been booked already: receipt ${number}.`, { number })
}
/** Applies it invoice by invoice; answers how much of it was applied on the day it came. */
async function applyAll(
  ctx: Ctx,
  p: Taken,
  { applied, open, memo }: { applied: Applied; open: readonly OpenRow[]; memo: string },
): Promise<number> {
  let atOnceMinor = 0
  for (const { id, amountMinor } of applied) {
    const invoice = open.find((i) => i.id === id)!
    await applyTo(ctx, p, invoice, { amountMinor, memo })
    if (invoice.bookedOn <= p.receivedOn) atOnceMinor += amountMinor
  }
  return atOnceMinor
}
/** What is told of each invoice that was paid, in whole or in part. */
const sayApplied = (
  ctx: Ctx,
  applied: Applied,
  open: readonly OpenRow[],
): Answer<'pay'>['applied'] =>
  applied.map(({ id, amountMinor }) => {
    const invoice = open.find((i) => i.id === id)!
    const money = (minor: number) => toMoney(minor, ctx.company.currency)
    return {
      invoiceId: id,
      number: invoice.number,
      amount: money(amountMinor),
      open: money(invoice.balanceMinor - amountMinor),
    }
  })
/** The history of each work order that was paid for, or of the customer where nothing was. */
async function recordPayment(
  ctx: Ctx,
  p: Taken,
  { number, applied, open }: Omit<Receipt, 'leftMinor'>,
): Promise<void> {
  const about = { subject: 'payment', id: p.id, customerId: p.customerId } as const
  const said = {
    amount: minorToDecimal(p.amountMinor, ctx.company.currency),
    method: p.method,
    reference: p.reference,
    receipt: number,
  }
  const paid = open.filter((i) => applied.some((a) => a.id === i.id))
  for (const workOrderId of new Set(paid.flatMap((i) => i.workOrderId ?? []))) {
    await refreshWorkOrder(ctx, workOrderId)
    await record(ctx, { ...about, workOrderId, fact: paymentFacts.applied(said) })
  }
  if (applied.length === 0) await record(ctx, { ...about, fact: paymentFacts.unapplied(said) })
}
/** The payment in the books: what was applied on the day it came, and what stands in the customer's favour. */
async function postPayment(
  ctx: Ctx,
  p: Taken,
  { memo, atOnceMinor }: { memo: string; atOnceMinor: number },
): Promise<void> {
  await post(ctx.tx, {
    on: p.receivedOn,
    kind: 'payment',
    sourceId: p.id,
    memo,
    customerId: p.customerId,
    at: ctx.now,
    postings: paymentEntry({
      account: PAYMENT_ACCOUNT[p.method],
      amountMinor: p.amountMinor,
      appliedMinor: atOnceMinor,
    }),
  })
}
/** Books a payment, whoever took it; the customer's invoices stay locked meanwhile. */
export async function bookPayment(ctx: Ctx, taken: Taken): Promise<Answer<'pay'>> {
  const { tx } = ctx
  const p = { ...taken, invoiceIds: [...new Set(taken.invoiceIds)] }
  const customer = await payerOf(ctx, p)
  const named = p.invoiceIds.length ? p.invoiceIds : undefined
  const open = await openInvoices(tx, p.customerId, named ?? null, true)
  if (named) await checkNamed(ctx, p)
  checkSums(ctx, p, open)
  const { applied, leftMinor } = applyPayment(p.amountMinor, open, named)
  const { number } = await nextNumber(ctx, 'receipt')
  const { id, customerId, method, reference, amountMinor: amount, receivedOn: on } = p
  const by = ctx.actor?.id ?? null
  const row = { id, number, customerId, method, reference, amount, on, by, at: ctx.now }
  await insertPayment(tx, row)
  const memo = `${number} ${customer.name} ${method}`
  const atOnceMinor = await applyAll(ctx, p, { applied, open, memo })
  await postPayment(ctx, p, { memo, atOnceMinor })
  await recordPayment(ctx, p, { number, applied, open })
  if (p.receiptTo.length) await mailReceipt(ctx, p, { number, applied, open, leftMinor })
  const money = (minor: number) => toMoney(minor, ctx.company.currency)
  const openMinor = open.reduce((sum, i) => sum + i.balanceMinor, 0)
  return {
    id,
    number,
    amount: money(amount),
    applied: sayApplied(ctx, applied, open),
    left: money(leftMinor),
    stillOpen: money(openMinor - (amount - leftMinor)),
  }
}
interface Receipt {
  number: string
  applied: readonly { id: string; amountMinor: number }[]
  open: readonly OpenRow[]
  leftMinor: number
}
async function mailReceipt(
  ctx: Ctx,
  p: Taken,
  { number, applied, open, leftMinor }: Receipt,
): Promise<void> {
  const money = (minor: number) =>
    sayMoney(toMoney(minor, ctx.company.currency), ctx.company.locale)
  const lines = applied.map((a) => {
    const invoice = open.find((i) => i.id === a.id)!
    const rest = invoice.balanceMinor - a.amountMinor
    return `${invoice.number}: ${money(a.amountMinor)}${rest ? `, still open ${money(rest)}` : ', paid in full'}`
  })
  const body = [
    `We received ${money(p.amountMinor)} by ${p.method}${p.reference ? ` (${p.reference})` : ''} on ${sayDay(p.receivedOn, ctx.company.locale, 'withYear')}.`,
    '',
    ...lines,
    ...(leftMinor ? [`Kept as a credit: ${money(leftMinor)}`] : []),
    '',
    'Thank you.',
    ctx.company.name,
  ].join('\n')
  await queueMail(ctx, {
    kind: 'receipt',
    customerId: p.customerId,
    invoiceId: applied[0]?.id ?? null,
    to: p.receiptTo,
    subject: `${ctx.company.name}: receipt ${number}`,
    body,
    attach: 'none',
  })
}
