// The routes of invoices and messages, bound to their service.
import { invoiceState } from '../../core/documents/invoiceState'
import { notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import type { invoiceRoutes } from '../../shared/invoices'
import { outside, Raw, type Handlers } from '../http/route'
import { noteOpened } from '../messages/queries'
import { listMessages, retry } from '../messages/service'
import { startCardPayment } from '../payments/card'
import { readFont } from '../documents/fonts'
import { invoicePdf } from './pdf'
import type { InvoiceRow } from './queries'
import {
  byToken,
  changeLink,
  invoicePaper,
  listInvoices,
  makeInvoice,
  sendInvoice,
  visibleInvoice,
} from './service'

const pdf = (i: InvoiceRow) =>
  new Raw(
    'application/pdf',
    () => invoicePdf(i.paper, toMoney(i.paid, i.currency), toMoney(i.open, i.currency), readFont),
    `${i.number}.pdf`,
  )
export const invoiceHandlers: Handlers<typeof invoiceRoutes> = {
  makeInvoice: (ctx, { params, body }) => makeInvoice(ctx, params.id!, body),
  invoices: (ctx, { query }) => listInvoices(ctx, query),
  invoice: (ctx, { params }) => invoicePaper(ctx, params.id!),
  invoicePdf: async (ctx, { params }) => pdf(await visibleInvoice(ctx, params.id!)),
  sendInvoice: (ctx, { params, body }) => sendInvoice(ctx, params.id!, body),
  async publicInvoice(ctx, { params }) {
    const i = await byToken(ctx, params.token!)
    return {
      paper: i.paper,
      paid: toMoney(i.paid, i.currency),
      open: toMoney(i.open, i.currency),
      state: invoiceState(i),
      now: new Date(ctx.now).toISOString(),
    }
  },
  // Told by the page once a person looks at it: programs that follow the links in mails open nothing.
  async seenInvoice(ctx, { params }) {
    await noteOpened(ctx, await byToken(ctx, params.token!))
    return { ok: true }
  },
  publicInvoicePdf: async (ctx, { params }) => pdf(await byToken(ctx, params.token!)),
  payByCard: outside((call, { params }) => startCardPayment(call, params.token!)),
  withdrawLink: (ctx, { params }) => changeLink(ctx, params.id!, false),
  renewLink: (ctx, { params }) => changeLink(ctx, params.id!, true),
  messages: (ctx, { query }) => listMessages(ctx, query),
  async retryMessage(ctx, { params }) {
    if (!(await retry(ctx, params.id!))) throw notFound('failed message')
    return { ok: true }
  },
}
