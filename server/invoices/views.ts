// What screens and papers are told of an invoice.
import { sayMoney } from '../../core/money/sayMoney'
import { mailText } from '../../core/text/mailWords'
import { sayDay } from '../../core/time/sayDay'
import { daysLate } from '../../core/collections/ageing'
import type { PaperDocument } from '../../core/documents/paperDocument'
import { notFound } from '../../core/errors/LedgerError'
import { actsFrom } from '../../core/documents/lifecycle'
import { invoiceDocument } from '../../core/invoices/invoiceDocument'
import {
  invoiceLifecycle,
  invoicePermissions,
  type InvoiceAct,
} from '../../core/invoices/invoiceLifecycle'
import { invoiceState } from '../../core/invoices/invoiceState'
import { toMoney } from '../../core/money/formatMinor'
import type { Answer, Query } from '../../shared/api'
import { hashToken } from '../access/session'
import { may, signedIn, type Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { historyOf } from '../http/queries'
import { messagesOfInvoice } from '../messages/queries'
import { customFields } from '../settings/queries'
import { visibleWorkOrder } from '../visits/account'
import { publicLink } from './link'
import {
  invoiceById,
  invoiceByToken,
  invoicePage,
  paymentsOfInvoice,
  type InvoiceRow,
} from './queries'

export type InvoiceView = Answer<'invoice'>

/** An invoice that the asker may see; a technician only those of work orders on which they have a visit. */
export async function visibleInvoice(ctx: Ctx, id: string): Promise<InvoiceRow> {
  const invoice = await invoiceById(ctx.tx, id)
  if (!invoice) throw notFound('invoice')
  if (signedIn(ctx).role === 'technician') {
    if (!invoice.workOrderId) throw notFound('invoice')
    await visibleWorkOrder(ctx, invoice.workOrderId)
  }
  return invoice
}
/** The invoice that a customer's private link leads to. */
export async function invoiceAtLink(ctx: Ctx, token: string): Promise<InvoiceRow> {
  const invoice = await invoiceByToken(ctx.tx, hashToken(token), ctx.now)
  if (!invoice) throw notFound('paper at this address; the link may have expired')
  return invoice
}
/** What has come in for an invoice, and what has not. */
const received = ({ paid, open, currency }: InvoiceRow) => ({
  paid: toMoney(paid, currency),
  open: toMoney(open, currency),
})
/** The invoice as it is drawn: as it was sent, with what has come in since. */
export const documentOf = (invoice: InvoiceRow): PaperDocument =>
  invoiceDocument(invoice.paper, received(invoice))

const lateBy = (ctx: Ctx, { open, dueOn }: { open: number; dueOn: string }): number =>
  open > 0 ? Math.max(0, daysLate(dueOn, ctx.today)) : 0
/** What whoever asks may do with it: what its state allows, and they are permitted. */
const actsOf = (ctx: Ctx, invoice: InvoiceRow): InvoiceAct[] =>
  actsFrom(invoiceLifecycle, invoiceState(invoice)).filter((act) =>
    may(ctx, invoicePermissions[act]),
  )

/** What the firm writes with an invoice. */
export const invoiceMail = (
  { company }: Ctx,
  { number, paper, currency, open }: InvoiceRow,
): string =>
  mailText('invoice', company.wording, {
    ...{ number, name: paper.buyer.name, company: company.name },
    sum: sayMoney(toMoney(open, currency), company.locale),
    due: sayDay(paper.dueOn, company.locale, 'withYear'),
  })
export async function invoiceView(ctx: Ctx, id: string): Promise<InvoiceView> {
  const i = await visibleInvoice(ctx, id)
  const payments = await paymentsOfInvoice(ctx.tx, id)
  return {
    id,
    version: i.version,
    customerId: i.customerId,
    workOrderId: i.workOrderId,
    state: invoiceState(i),
    acts: actsOf(ctx, i),
    late: lateBy(ctx, i),
    sent: i.sent,
    mail: invoiceMail(ctx, i),
    ...received(i),
    paper: i.paper,
    payments: payments.map((p) => ({ ...p, amount: toMoney(p.amount, i.currency) })),
    messages: await messagesOfInvoice(ctx.tx, id),
    link: publicLink(i),
    linkUntil: i.linkUntil,
    fields: await fieldsView(ctx, i),
    history: await historyOf(ctx, 'subject_id', [id, ...(i.importId ? [i.importId] : [])]),
  }
}
/** The firm's own fields of invoices; one that is not used any more only where it holds something. */
async function fieldsView(ctx: Ctx, invoice: InvoiceRow): Promise<InvoiceView['fields']> {
  return (await customFields(ctx.tx))
    .filter((f) => f.subject === 'invoice' && (!f.retired || invoice.custom[f.id]))
    .map((f) => ({
      id: f.id,
      name: f.name,
      kind: f.kind,
      choices: f.choices,
      value: invoice.custom[f.id] ?? '',
    }))
}
/** What the customer is told behind their private link. */
export const publicView = (ctx: Ctx, i: InvoiceRow): Answer<'publicInvoice'> => ({
  paper: i.paper,
  ...received(i),
  state: invoiceState(i),
  now: new Date(ctx.now).toISOString(),
})

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
    late: lateBy(ctx, r),
    state: invoiceState(r),
  }))
}
