// Invoices: made in one act, frozen, sent, read by the customer at a private link.
import { MONEY, date, flag, id, instant, int, list, listQuery, mail, money, obj, oneOf, ok, page, route, text, words } from './schema'

export const sendSchema = { to: list(mail().required()).default([]), subject: text(200).default(''), body: text(8000).default('') }
export const paper = obj({
  number: words(), issueOn: date().required(), dueOn: date().required(), terms: words(), currency: words(), locale: words(), taxMode: words(),
  seller: obj({ name: words(), address: list(words()), phone: words(), email: words(), taxNumber: words() }), buyer: obj({ name: words(), address: list(words()) }), site: words(400),
  orderNumber: words(), workOrder: words(), exemptCertificate: words(), note: text(400).optional(), contact: text(200).optional(), payTo: words(1000), conditions: words(2000),
  lines: list(obj({ name: words(), quantity: words(), unit: words(), unitPrice: words(), discount: money().required(), net: money().required() })),
  net: money().required(), taxes: list(obj({ name: words(), rate: words(), base: money().required(), tax: money().required() })), tax: money().required(), total: money().required(), payable: money().required(),
})
const row = obj({ id: id().required(), number: words(), customerId: id().required(), customer: words(), workOrderId: id().nullable().defined(), workOrder: words(), issueOn: date().required(), dueOn: date().required(), total: money().required(), open: money().required(), late: int().required(), state: words() })
export const invoiceDetail = obj({
  id: id().required(), version: int().required(), customerId: id().required(), workOrderId: id().nullable().defined(), state: words(), late: int().required(), sent: flag().required(), paid: money().required(), open: money().required(), paper,
  payments: list(obj({ id: id().required(), number: words(), method: words(), reference: words(), on: date().required(), amount: money().required(), bounced: flag().required() })),
  messages: list(obj({ id: id().required(), kind: words(), to: words(400), state: words(), createdAt: instant().required(), openedAt: instant().nullable().defined() })), link: words(300), linkUntil: instant().nullable().defined(),
  fields: list(obj({ id: id().required(), name: words(), kind: words(), choices: list(words()), value: words(400) })),
})
export const invoiceRoutes = {
  makeInvoice: route({
    method: 'POST', path: '/work-orders/{id}/invoice', who: ['owner', 'office', 'books', 'technician'], summary: 'Make the invoice from what is done and not billed, and send it when addresses are given',
    body: obj({ id: id().required(), dueOn: date().nullable().default(null), ...sendSchema, shownTotal: text(20).default('') }), answer: invoiceDetail,
  }),
  invoices: route({ method: 'GET', path: '/invoices', who: MONEY, summary: 'Invoices', query: obj({ ...listQuery, state: oneOf(['open', 'overdue', 'paid'] as const), customerId: id() }), answer: page(row) }),
  invoice: route({ method: 'GET', path: '/invoices/{id}', who: ['owner', 'office', 'books', 'dispatch', 'technician'], summary: 'An invoice as it was sent, with what came in', answer: invoiceDetail }),
  invoicePdf: route({ method: 'GET', path: '/invoices/{id}.pdf', who: ['owner', 'office', 'books', 'dispatch', 'technician'], summary: 'The invoice as PDF', mime: 'application/pdf' }),
  sendInvoice: route({ method: 'POST', path: '/invoices/{id}/send', who: ['owner', 'office', 'books', 'technician'], summary: 'Send an invoice by mail; without addresses: note that it was handed over', body: obj(sendSchema), answer: invoiceDetail }),
  publicInvoice: route({ method: 'GET', path: '/public/invoices/{token}', who: 'public', summary: 'The customer’s page of an invoice', answer: obj({ paper, paid: money().required(), open: money().required(), state: words(), now: instant().required() }) }),
  publicInvoicePdf: route({ method: 'GET', path: '/public/invoices/{token}.pdf', who: 'public', summary: 'The customer’s PDF of an invoice', mime: 'application/pdf' }),
  seenInvoice: route({ method: 'POST', path: '/public/invoices/{token}/seen', who: 'public', summary: 'A person looks at the customer’s page', answer: ok }),
  withdrawLink: route({ method: 'POST', path: '/invoices/{id}/link/withdraw', who: MONEY, summary: 'End the customer’s private link', answer: invoiceDetail }),
  renewLink: route({ method: 'POST', path: '/invoices/{id}/link', who: MONEY, summary: 'Make another private link; the one before ends', answer: invoiceDetail }),
  payByCard: route({ method: 'POST', path: '/public/invoices/{token}/card', who: 'public', summary: 'Start a card payment; answers where the card is typed (never here)', answer: obj({ url: words(400) }) }),
  messages: route({ method: 'GET', path: '/messages', who: ['owner', 'office', 'dispatch', 'books'], summary: 'What was sent to customers: waiting, delivered, opened, failed', query: obj({ ...listQuery }), answer: page(obj({ id: id().required(), kind: words(), channel: words(), customer: words(), to: words(400), subject: words(), body: words(6000), state: words(), error: words(300), createdAt: instant().required(), deliveredAt: instant().nullable().defined(), openedAt: instant().nullable().defined(), attachment: words() })) }),
  retryMessage: route({ method: 'POST', path: '/messages/{id}/retry', who: MONEY, summary: 'Try a failed message again now', answer: ok }),
}
