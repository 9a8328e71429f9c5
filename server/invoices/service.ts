// Invoices: one act makes one from what is done and not billed, with its number, its posting and its frozen paper.
import { invoiceState } from '../../core/documents/invoiceState'
import { isExempt } from '../../core/tax/isExempt'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { daysLate } from '../../core/collections/ageing'
import { decimalToMinor, toMoney } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import { roundToMinor } from '../../core/money/roundToMinor'
import { shareAmount } from '../../core/money/shareAmount'
import { documentTotals } from '../../core/documents/documentTotals'
import { dueDate, termsInWords } from '../../core/documents/dueDate'
import { INCOME_ACCOUNT } from '../../core/ledger/accounts'
import { invoiceEntry } from '../../core/ledger/entries'
import { DAY } from '../../core/time/units'
import type { Answer, Body, Query } from '../../shared/api'
import { hashToken, linkToken } from '../access/session'
import { customerById, siteById } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { record } from '../http/queries'
import { post } from '../ledger/queries'
import { messagesOfInvoice } from '../messages/queries'
import { queueMail } from '../messages/service'
import { customFields, nextNumber, taxClasses } from '../settings/queries'
import {
  accountOf,
  asPaperLine,
  partialLine,
  refreshWorkOrder,
  visibleWorkOrder,
} from '../visits/account'
import { detailsOf } from '../visits/details'
import { linesOf } from '../visits/queries'
import {
  insertInvoice,
  insertInvoiceLines,
  invoiceById,
  invoiceByToken,
  invoicePage,
  markSent,
  paymentsOfInvoice,
  setLink,
  type InvoiceRow,
  type Paper,
} from './queries'
import { INVOICE_NUMBERS } from './numbers'
import { config } from '../config'
import { invoiceFacts } from './facts'

/** A customer's link holds a little over a year. */
const LINK_MS = 400 * DAY

export async function makeInvoice(
  ctx: Ctx,
  workOrderId: string,
  body: Body<'makeInvoice'>,
): Promise<Answer<'invoice'>> {
  const { tx, company } = ctx
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const customer = (await customerById(tx, work.customerId))!
  const site = (await siteById(tx, work.siteId))!
  const lines = await linesOf(tx, workOrderId)
  const account = await accountOf(ctx, lines, workOrderId)
  const open = account.lines
    .filter((a) => a.unbilledMinor > 0)
    .map((a) => ({ a, line: lines.find((l) => l.id === a.id)! }))
  if (open.length === 0)
    throw conflict('nothing_to_bill', 'Nothing is done and not billed on this work order.')
  const classes = await taxClasses(tx)
  const m = (minor: number) => toMoney(minor, work.currency)
  const paperLines = open.map(({ a, line }) =>
    a.billedMinor === 0
      ? asPaperLine(line, classes)
      : partialLine(a.unbilledMinor, line, classes, work.currency),
  )
  // On the day of the invoice, as its certificate is.
  const exempt = isExempt(customer, ctx.today)
  const totals = documentTotals(paperLines, {
    mode: company.taxMode,
    currency: work.currency,
    exempt,
  })
  if (body.shownTotal && decimalToMinor(body.shownTotal, work.currency) !== totals.totalMinor)
    throw conflict('price_changed', 'The lines changed since you looked. Look at the sum again.', {
      total: m(totals.totalMinor),
    })
  const terms = customer.terms ?? company.terms
  const dueOn = body.dueOn || dueDate(ctx.today, terms)
  if (dueOn < ctx.today) throw invalid('dueOn', 'It would be due before it is issued.')
  const number = await nextNumber(tx, INVOICE_NUMBERS)
  // The work order's own copy of the details: a later change of the customer is carried over on purpose, or not at all.
  const details = { ...detailsOf(customer, site), ...work.details }
  const paper: Paper = {
    number,
    issueOn: ctx.today,
    dueOn,
    terms: termsInWords(terms),
    currency: work.currency,
    locale: company.locale,
    taxMode: company.taxMode,
    seller: {
      name: company.name,
      address: [company.line1, `${company.town} ${company.postcode}`.trim()].filter(Boolean),
      phone: company.phone,
      email: company.email,
      taxNumber: company.taxNumber,
    },
    buyer: {
      name: details.name,
      address: [
        details.billingLine1,
        `${details.billingTown} ${details.billingPostcode}`.trim(),
      ].filter(Boolean),
    },
    site: [details.siteName, details.siteLine1, details.siteTown].filter(Boolean).join(', '),
    note: work.printedNote,
    contact: [work.contact.name, work.contact.name && work.contact.phone]
      .filter(Boolean)
      .join(', '),
    orderNumber: work.orderNumber,
    workOrder: work.number,
    exemptCertificate: exempt ? customer.certificate : '',
    payTo: company.payTo,
    conditions: company.conditions,
    lines: open.map(({ a, line }, i) => {
      const whole = a.billedMinor === 0
      return {
        name: whole ? line.name : `${line.name} (balance)`,
        quantity: whole ? new Decimal(line.quantity).toString() : '1',
        unit: line.unit,
        unitPrice: String(paperLines[i]!.unitPrice),
        discount: m(whole ? line.discountMinor : 0),
        net: m(totals.lineNets[i]!),
      }
    }),
    net: m(totals.netMinor),
    taxes: totals.taxes.map((t) => ({
      name: t.name,
      rate: t.rate,
      base: m(t.baseMinor),
      tax: m(t.taxMinor),
    })),
    tax: m(totals.taxMinor),
    total: m(totals.totalMinor),
    payable: m(totals.payableMinor),
  }
  const token = linkToken('invoice', body.id)
  await insertInvoice(tx, {
    id: body.id,
    number,
    customerId: customer.id,
    workOrderId,
    issueOn: ctx.today,
    dueOn,
    currency: work.currency,
    net: totals.netMinor,
    tax: totals.taxMinor,
    total: totals.totalMinor,
    payable: totals.payableMinor,
    paper,
    tokenHash: hashToken(token),
    tokenExpires: ctx.now + LINK_MS,
    now: ctx.now,
  })
  await insertInvoiceLines(
    tx,
    open.map(({ line }, i) => [
      ctx.id(),
      body.id,
      line.id,
      i + 1,
      line.kind,
      line.name,
      totals.lineBases[i]!,
      roundToMinor(new Decimal(line.unitCost).times(line.quantity), work.currency),
    ]),
  )
  // Income is what the paper nets; with tax inside the prices it is shared over the lines so that the entry balances.
  const incomes =
    company.taxMode === 'included'
      ? shareAmount(totals.netMinor, totals.lineBases)
      : totals.lineBases
  await post(tx, {
    on: ctx.today,
    kind: 'invoice',
    sourceId: body.id,
    memo: `${number} ${customer.name}`,
    customerId: customer.id,
    at: ctx.now,
    postings: invoiceEntry({
      totalMinor: totals.payableMinor,
      taxMinor: company.taxMode === 'withheld' ? 0 : totals.taxMinor,
      income: withheld(company.taxMode, incomes, totals.taxMinor).map((amountMinor, i) => ({
        account: INCOME_ACCOUNT[open[i]!.line.kind],
        amountMinor,
      })),
    }),
  })
  await record(ctx, {
    subject: 'invoice',
    id: body.id,
    workOrderId,
    customerId: customer.id,
    fact: invoiceFacts.made({
      number,
      total: paper.total.amount,
      currency: work.currency,
      dueOn,
    }),
  })
  if (body.to.length) await mailInvoice(ctx, body.id, body)
  await refreshWorkOrder(ctx, workOrderId)
  return invoicePaper(ctx, body.id)
}
/** In `withheld` mode the customer keeps the tax back: income is booked net of it, as it comes in. */
const withheld = (mode: string, incomes: number[], tax: number): number[] => {
  if (mode !== 'withheld') return incomes
  const shares = shareAmount(tax, incomes)
  return incomes.map((income, i) => income - shares[i]!)
}

async function mailInvoice(
  ctx: Ctx,
  id: string,
  mail: { to: string[]; subject: string; body: string },
): Promise<void> {
  const invoice = (await invoiceById(ctx.tx, id))!
  if (mail.to.length > 4) throw invalid('to', 'Send it to four addresses at most.')
  const text = mail.body || (ctx.company.wording.invoice ?? 'Your invoice is attached.\n\n{link}')
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
  await record(ctx, {
    subject: 'invoice',
    id,
    workOrderId: invoice.workOrderId,
    customerId: invoice.customerId,
    fact: invoiceFacts.sent({ number: invoice.number, addresses: mail.to.length }),
  })
}
export async function sendInvoice(
  ctx: Ctx,
  id: string,
  mail: Body<'sendInvoice'>,
): Promise<Answer<'invoice'>> {
  const invoice = await visibleInvoice(ctx, id)
  if (mail.to.length) await mailInvoice(ctx, id, mail)
  else {
    await markSent(ctx.tx, id)
    await record(ctx, {
      subject: 'invoice',
      id,
      workOrderId: invoice.workOrderId,
      customerId: invoice.customerId,
      fact: invoiceFacts.handedOver({ number: invoice.number }),
    })
  }
  return invoicePaper(ctx, id)
}

export async function visibleInvoice(ctx: Ctx, id: string): Promise<InvoiceRow> {
  const invoice = await invoiceById(ctx.tx, id)
  if (!invoice) throw notFound('invoice')
  if (signedIn(ctx).role === 'technician') {
    if (!invoice.workOrderId) throw notFound('invoice')
    await visibleWorkOrder(ctx, invoice.workOrderId)
  }
  return invoice
}
/** The customer's private page; empty once it was withdrawn. */
export const publicLink = (i: Pick<InvoiceRow, 'id' | 'linkTurn' | 'linkUntil'>): string =>
  i.linkUntil ? `${config.publicUrl}/i/${linkToken('invoice', i.id, i.linkTurn)}` : ''
/** Ends the customer's link, or makes another one in its place. */
export async function changeLink(ctx: Ctx, id: string, renew: boolean): Promise<Answer<'invoice'>> {
  const i = await invoiceById(ctx.tx, id, true)
  if (!i) throw notFound('invoice')
  const turn = i.linkTurn + 1
  await setLink(
    ctx.tx,
    id,
    renew
      ? { turn, tokenHash: hashToken(linkToken('invoice', id, turn)), until: ctx.now + LINK_MS }
      : { turn: i.linkTurn, tokenHash: null, until: null },
  )
  await record(ctx, {
    subject: 'invoice',
    id,
    workOrderId: i.workOrderId,
    customerId: i.customerId,
    fact: (renew ? invoiceFacts.linkRenewed : invoiceFacts.linkWithdrawn)({ number: i.number }),
  })
  return invoicePaper(ctx, id)
}

export async function invoicePaper(ctx: Ctx, id: string): Promise<Answer<'invoice'>> {
  const i = await visibleInvoice(ctx, id)
  const m = (minor: number) => toMoney(minor, i.currency)
  return {
    id,
    version: i.version,
    customerId: i.customerId,
    workOrderId: i.workOrderId,
    state: invoiceState(i),
    late: i.open > 0 ? Math.max(0, daysLate(i.dueOn, ctx.today)) : 0,
    sent: i.sent,
    paid: m(i.paid),
    open: m(i.open),
    paper: i.paper,
    payments: (await paymentsOfInvoice(ctx.tx, id)).map((p) => ({
      ...p,
      amount: m(p.amount),
      bounced: Boolean(p.bounced),
    })),
    messages: await messagesOfInvoice(ctx.tx, id),
    link: publicLink(i),
    linkUntil: i.linkUntil,
    fields: (await customFields(ctx.tx))
      .filter((f) => f.subject === 'invoice' && (!f.retired || i.custom[f.id]))
      .map((f) => ({
        id: f.id,
        name: f.name,
        kind: f.kind,
        choices: f.choices,
        value: i.custom[f.id] ?? '',
      })),
  }
}
export async function listInvoices(
  ctx: Ctx,
  query: Query<'invoices'>,
): Promise<Answer<'invoices'>> {
  const p = paging(query, ['issued', 'due'], '-issued')
  const { rows, total } = await invoicePage(ctx.tx, {
    ...p,
    q: query.q ?? '',
    state: query.state,
    customerId: query.customerId,
    today: ctx.today,
  })
  return pageOf(rows, total, p.limit, (r) => ({
    id: r.id,
    number: r.number,
    customerId: r.customerId,
    customer: r.customer,
    workOrderId: r.workOrderId,
    workOrder: r.workOrder ?? '',
    issueOn: r.issueOn,
    dueOn: r.dueOn,
    total: toMoney(r.total, ctx.company.currency),
    open: toMoney(r.open, ctx.company.currency),
    late: r.open > 0 ? Math.max(0, daysLate(r.dueOn, ctx.today)) : 0,
    state: invoiceState(r),
  }))
}
export async function byToken(ctx: Ctx, token: string): Promise<InvoiceRow> {
  const invoice = await invoiceByToken(ctx.tx, hashToken(token), ctx.now)
  if (!invoice) throw notFound('paper at this address; the link may have expired')
  return invoice
}
