// Makes an invoice of what is done and not billed on a work order: its number, its frozen paper, its posting.
import { dueDate } from '../../core/documents/dueDate'
import { documentTotals, type DocumentTotals } from '../../core/documents/documentTotals'
import { beyondAgreedMinor } from '../../core/costing/notAgreedMinor'
import { conflict, invalid, LedgerError } from '../../core/errors/LedgerError'
import { invoicePaper, type InvoicePaper } from '../../core/invoices/invoicePaper'
import { INCOME_ACCOUNT } from '../../core/ledger/accounts'
import { invoiceEntry } from '../../core/ledger/entries'
import { Decimal } from '../../core/money/decimal'
import { decimalToMinor, toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { shareAmount } from '../../core/money/shareAmount'
import { isExempt } from '../../core/tax/isExempt'
import type { Body } from '../../shared/api'
import { settleYear } from '../agreements/index'
import { hashToken, linkToken } from '../access/session'
import { customerById, type CustomerRow } from '../customers/queries'
import { siteById, type SiteRow } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { post } from '../ledger/queries'
import { nextNumber } from '../settings/numbers'
import { layoutFor } from '../settings/index'
import { taxClasses } from '../settings/queries'
import {
  accountOf,
  asPaperLine,
  partialLine,
  refreshWorkOrder,
  visibleWorkOrder,
} from '../visits/account'
import { levelFor } from '../pricebook/priceLines'
import { ownDetails } from '../visits/details'
import { reasonsOf } from '../visits/takenOff'
import { workFacts } from '../visits/facts'
import { hasAgreedOn } from '../visits/papers.queries'
import { leaveOut } from '../visits/time'
import { linesOf, type LineRow } from '../visits/lines.queries'
import { visitsOfWork } from '../visits/visits.queries'
import type { WorkOrderRow } from '../visits/queries'
import { keepBillingAddress } from './address'
import { mailInvoice } from './commands'
import { invoiceFacts } from './facts'
import { LINK_MS } from './link'
import { insertInvoice, insertInvoiceLines } from './queries'
import { invoiceView, type InvoiceView } from './views'

/** A line of work that is billed now: the whole of it, or the rest of what was billed in part. */
interface Billed {
  line: LineRow
  whole: boolean
  unbilledMinor: number
  priced: ReturnType<typeof asPaperLine>
}
/** What is billed, to whom, and what it comes to. */
interface Bill {
  work: WorkOrderRow
  customer: CustomerRow
  site: SiteRow
  exempt: boolean
  billed: Billed[]
  totals: DocumentTotals
  dueOn: string
}

export async function makeInvoice(
  ctx: Ctx,
  workOrderId: string,
  body: Body<'makeInvoice'>,
): Promise<InvoiceView> {
  if (body.billing) await keepBillingAddress(ctx, workOrderId, body.billing)
  const bill = await billOf(ctx, await visibleWorkOrder(ctx, workOrderId, true), body)
  const { work, customer, totals } = bill
  const shown = body.shownTotal && decimalToMinor(body.shownTotal, work.currency)
  if (shown !== '' && shown !== totals.totalMinor)
    throw conflict('price_changed', 'The lines changed since you looked. Look at the sum again.', {
      total: toMoney(totals.totalMinor, work.currency),
    })
  const beyondMinor = await beyondAgreed(ctx, bill)
  const money = (minor: number) => toMoney(minor, work.currency)
  if (beyondMinor > 0 && !body.beyond) {
    const message = 'More is billed than the customer agreed to. Show it to them, or say why.'
    throw new LedgerError('not_agreed', message, {
      errors: [{ path: 'beyond', message }],
      extra: { beyond: money(beyondMinor) },
    })
  }
  const given = await nextNumber(ctx, 'invoice')
  const { number } = given
  const paper = await paperOf(ctx, number, bill, body)
  await keep(ctx, { id: body.id, ...given }, bill, paper)
  await postInvoice(ctx, body.id, number, bill)
  await record(ctx, {
    subject: 'invoice',
    id: body.id,
    workOrderId,
    customerId: customer.id,
    fact: invoiceFacts.made({
      number,
      total: toMoney(totals.totalMinor, work.currency).amount,
      currency: work.currency,
      dueOn: bill.dueOn,
    }),
  })
  if (body.to.length) await mailInvoice(ctx, body.id, body)
  if (beyondMinor > 0) {
    const said = { ...money(beyondMinor), reason: body.beyond }
    const fact = workFacts.billedBeyond(said)
    await record(ctx, {
      subject: 'work',
      id: workOrderId,
      workOrderId,
      customerId: customer.id,
      fact,
    })
  }
  await settleYear(ctx.tx, workOrderId)
  if (body.leftOut) await leaveOut(ctx, work, body.leftOut)
  await refreshWorkOrder(ctx, workOrderId)
  return invoiceView(ctx, body.id)
}
/** What of it the customer did not agree to, where they agreed to something at all. */
async function beyondAgreed({ tx }: Ctx, { work, billed }: Bill): Promise<number> {
  const lines = billed.map(({ line, unbilledMinor }) => ({ ...line, unbilledMinor }))
  return beyondAgreedMinor(lines, await hasAgreedOn(tx, work.id))
}
/** What is done and not billed, priced and taxed as of today. */
async function billOf(ctx: Ctx, work: WorkOrderRow, body: { dueOn: string | null }): Promise<Bill> {
  const { tx, company } = ctx
  const customer = (await customerById(tx, work.customerId))!
  const lines = await linesOf(tx, work.id)
  const account = await accountOf(ctx, lines, work.id)
  const site = (await siteById(tx, work.siteId))!
  const classes = await taxClasses(tx, { day: ctx.today, postcode: site.postcode })
  const billed = account.lines
    .filter((a) => a.unbilledMinor > 0)
    .map((a): Billed => {
      const line = lines.find((l) => l.id === a.id)!
      const whole = a.billedMinor === 0
      const priced = whole
        ? asPaperLine(line, classes)
        : partialLine(a.unbilledMinor, line, classes, work.currency)
      return { line, whole, unbilledMinor: a.unbilledMinor, priced }
    })
  if (billed.length === 0)
    throw conflict('nothing_to_bill', 'Nothing is done and not billed on this work order.')
  const dueOn = body.dueOn || dueDate(ctx.today, customer.terms ?? company.terms)
  if (dueOn < ctx.today) throw invalid('dueOn', 'It would be due before it is issued.')
  // On the day of the invoice, as its certificate is.
  const exempt = isExempt(customer, ctx.today)
  const totals = documentTotals(
    billed.map(({ priced }) => priced),
    { mode: company.taxMode, currency: work.currency, exempt },
  )
  return { work, customer, site, exempt, billed, totals, dueOn }
}
/** What was found at those of its visits that are to be printed, in their order. */
async function foundAt(
  { tx }: Ctx,
  { work }: Bill,
  visitIds: readonly string[],
): Promise<string[]> {
  if (!visitIds.length) return []
  const visits = await visitsOfWork(tx, work.id)
  return visits.flatMap(({ id, findings }) => (findings && visitIds.includes(id) ? [findings] : []))
}
async function paperOf(
  ctx: Ctx,
  number: string,
  bill: Bill,
  body: Pick<Body<'makeInvoice'>, 'findingsOf' | 'layoutId'>,
): Promise<InvoicePaper> {
  const { company } = ctx
  const { work, customer, site, exempt, billed, totals, dueOn } = bill
  const level = await levelFor(ctx, work)
  return invoicePaper({
    number,
    issueOn: ctx.today,
    dueOn,
    terms: customer.terms ?? company.terms,
    layout: await layoutFor(ctx, 'invoice', {
      ...{ said: body.layoutId, has: customer.invoiceLayoutId },
    }),
    company,
    work,
    // The work order's own copy: a later change of the customer is carried over on purpose, or not at all.
    details: ownDetails(work, customer, site),
    certificate: exempt ? customer.certificate : '',
    found: await foundAt(ctx, bill, body.findingsOf),
    lines: billed.map(({ line, whole, priced }) => ({
      name: line.name,
      quantity: line.quantity,
      unit: line.unit,
      discountMinor: line.discountMinor,
      off: reasonsOf(line, level),
      unitPrice: String(priced.unitPrice),
      whole,
    })),
    totals,
  })
}
/** Keeps the invoice with its lines. */
async function keep(
  ctx: Ctx,
  { id, run, serial }: { id: string; run: number; serial: number },
  bill: Bill,
  paper: InvoicePaper,
): Promise<void> {
  const { work, customer, billed, totals } = bill
  await insertInvoice(ctx.tx, {
    id,
    ...{ number: paper.number, run, serial },
    customerId: customer.id,
    workOrderId: work.id,
    issueOn: paper.issueOn,
    dueOn: paper.dueOn,
    currency: work.currency,
    net: totals.netMinor,
    tax: totals.taxMinor,
    total: totals.totalMinor,
    payable: totals.payableMinor,
    paper,
    tokenHash: hashToken(linkToken('invoice', id)),
    tokenExpires: ctx.now + LINK_MS,
    now: ctx.now,
  })
  await insertInvoiceLines(
    ctx.tx,
    billed.map(({ line }, i) => [
      ctx.id(),
      id,
      line.id,
      i + 1,
      line.kind,
      line.name,
      totals.lineBases[i]!,
      roundToMinor(new Decimal(line.unitCost).times(line.quantity), work.currency),
    ]),
  )
}
async function postInvoice(ctx: Ctx, id: string, number: string, bill: Bill): Promise<void> {
  const { customer, billed, totals } = bill
  const { taxMode } = ctx.company
  const incomes = incomesOf(taxMode, totals)
  await post(ctx.tx, {
    on: ctx.today,
    kind: 'invoice',
    sourceId: id,
    memo: `${number} ${customer.name}`,
    customerId: customer.id,
    at: ctx.now,
    postings: invoiceEntry({
      totalMinor: totals.payableMinor,
      taxMinor: taxMode === 'withheld' ? 0 : totals.taxMinor,
      income: incomes.map((amountMinor, i) => ({
        account: INCOME_ACCOUNT[billed[i]!.line.kind],
        amountMinor,
      })),
    }),
  })
}
/**
 * Income is what the paper nets, line by line. With tax inside the prices it is shared over the lines so
 * that the entry balances; where the customer keeps the tax back, it is booked net of it, as it comes in.
 */
function incomesOf(mode: Ctx['company']['taxMode'], totals: DocumentTotals): number[] {
  if (mode === 'included') return shareAmount(totals.netMinor, totals.lineBases)
  if (mode !== 'withheld') return totals.lineBases
  const shares = shareAmount(totals.taxMinor, totals.lineBases)
  return totals.lineBases.map((base, i) => base - shares[i]!)
}
