// The routes of invoices and messages, bound to what they do.
import { notFound } from '../../core/errors/LedgerError'
import type { invoiceRoutes } from '../../shared/invoices'
import { drawing } from '../documents/drawn'
import type { Ctx } from '../http/context'
import { outside, Raw, type Handlers } from '../http/route'
import { historyOf } from '../http/queries'
import { noteOpened } from '../messages/queries'
import { letBe, listMessages, retry } from '../messages/service'
import { startCardPayment } from '../payments/card'
import { changeLink, sendInvoice } from './commands'
import { makeInvoice } from './make'
import type { InvoiceRow } from './queries'
import {
  documentOf,
  invoiceAtLink,
  invoiceView,
  listInvoices,
  publicView,
  visibleInvoice,
} from './views'

const pdf = async (ctx: Ctx, i: InvoiceRow) =>
  new Raw('application/pdf', await drawing(ctx, documentOf(i)), `${i.number}.pdf`)

export const invoiceHandlers: Handlers<typeof invoiceRoutes> = {
  makeInvoice: (ctx, { params, body }) => makeInvoice(ctx, params.id!, body),
  invoices: (ctx, { query }) => listInvoices(ctx, query),
  invoice: (ctx, { params }) => invoiceView(ctx, params.id!),
  async invoiceEarlier(ctx, { params, query }) {
    const { id } = await visibleInvoice(ctx, params.id!)
    return { items: await historyOf(ctx, 'subject_id', [id], query.before) }
  },
  invoicePdf: async (ctx, { params }) => pdf(ctx, await visibleInvoice(ctx, params.id!)),
  sendInvoice: (ctx, { params, body }) => sendInvoice(ctx, params.id!, body),
  publicInvoice: async (ctx, { params }) =>
    publicView(ctx, await invoiceAtLink(ctx, params.token!)),
  // Told by the page once a person looks at it: programs that follow the links in mails open nothing.
  async seenInvoice(ctx, { params }) {
    await noteOpened(ctx, await invoiceAtLink(ctx, params.token!))
    return { ok: true }
  },
  publicInvoicePdf: async (ctx, { params }) => pdf(ctx, await invoiceAtLink(ctx, params.token!)),
  payByCard: outside((call, { params }) => startCardPayment(call, params.token!)),
  withdrawLink: (ctx, { params }) => changeLink(ctx, params.id!, false),
  renewLink: (ctx, { params }) => changeLink(ctx, params.id!, true),
  messages: (ctx, { query }) => listMessages(ctx, query),
  async retryMessage(ctx, { params }) {
    if (!(await retry(ctx, params.id!))) throw notFound('failed message')
    return { ok: true }
  },
  async letMessageBe(ctx, { params }) {
    if (!(await letBe(ctx, params.id!))) throw notFound('failed message')
    return { ok: true }
  },
}
