// The routes of invoices and messages, bound to their service.
import { conflict, notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import type { invoiceRoutes } from '../../shared/invoices'
import { Raw, type Handlers } from '../http/handlers'
import type { Ctx } from '../http/context'
import { noteOpened } from '../messages/queries'
import { listMessages, retry } from '../messages/service'
import { startCardPayment } from '../payments/card'
import { readFont } from '../documents/fonts'
import { invoicePdf } from './pdf'
import type { InvoiceRow } from './queries'
import { byToken, invoicePaper, invoiceState, listInvoices, makeInvoice, sendInvoice, visibleInvoice } from './service'

const pdf = async (ctx: Ctx, i: InvoiceRow) => new Raw('application/pdf', await invoicePdf(i.paper, toMoney(i.paid, i.currency), toMoney(i.open, i.currency), readFont), `${i.number}.pdf`)
export const invoiceHandlers: Handlers<typeof invoiceRoutes> = {
  makeInvoice: (ctx, { params, body }) => makeInvoice(ctx, params.id!, body),
  invoices: (ctx, { query }) => listInvoices(ctx, query),
  invoice: (ctx, { params }) => invoicePaper(ctx, params.id!),
  invoicePdf: async (ctx, { params }) => pdf(ctx, await visibleInvoice(ctx, params.id!)),
  sendInvoice: (ctx, { params, body }) => sendInvoice(ctx, params.id!, body),
  async publicInvoice(ctx, { params }) {
    const i = await byToken(ctx, params.token!)
    await noteOpened(ctx, i)
    return { paper: i.paper, paid: toMoney(i.paid, i.currency), open: toMoney(i.open, i.currency), state: invoiceState(i), now: new Date(ctx.now).toISOString() }
  },
  publicInvoicePdf: async (ctx, { params }) => pdf(ctx, await byToken(ctx, params.token!)),
  async payByCard(ctx, { params }) {
    const i = await byToken(ctx, params.token!)
    if (i.open <= 0) throw conflict('already_paid', 'This invoice is paid. Thank you.')
    return startCardPayment(ctx, i, params.token!)
  },
  messages: (ctx, { query }) => listMessages(ctx, query),
  async retryMessage(ctx, { params }) {
    if (!(await retry(ctx, params.id!))) throw notFound('failed message')
    return { ok: true }
  },
}
