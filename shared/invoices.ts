// Invoices: made in one act, frozen, sent, read by the customer at a private link.
import { backReason } from './payments'
import { invoiceLifecycle, type InvoiceAct } from '../core/invoices/invoiceLifecycle'
import { layout, letterhead, paperLine } from './documents'
import {
  date,
  flag,
  earlier,
  history,
  id,
  instant,
  int,
  list,
  listQuery,
  mail,
  money,
  obj,
  oneOf,
  ok,
  page,
  route,
  text,
  definedText,
  requiredText,
} from './schema'

const INVOICE_ACTS = Object.keys(invoiceLifecycle.acts) as InvoiceAct[]

export const sendSchema = {
  to: list(mail().required()).default([]),
  subject: text(200).default(''),
  body: text(8000).default(''),
}
export const paper = obj({
  number: definedText(),
  issueOn: date().required(),
  dueOn: date().required(),
  terms: definedText(),
  title: text().optional(),
  currency: definedText(),
  locale: definedText(),
  taxMode: definedText(),
  seller: letterhead(),
  buyer: obj({ name: definedText(), address: list(definedText()) }),
  site: definedText(400),
  orderNumber: definedText(),
  workOrder: definedText(),
  exemptCertificate: definedText(),
  note: text(400).optional(),
  found: list(definedText(4000)).optional(),
  contact: text(2000).optional(),
  payTo: definedText(1000),
  conditions: definedText(2000),
  lines: list(paperLine()),
  net: money().required(),
  taxes: list(
    obj({
      name: definedText(),
      rate: definedText(),
      base: money().required(),
      tax: money().required(),
    }),
  ),
  tax: money().required(),
  total: money().required(),
  payable: money().required(),
  layout: layout().optional().default(undefined),
})
const row = obj({
  id: id().required(),
  number: definedText(),
  customerId: id().required(),
  customer: definedText(),
  workOrderId: id().nullable().defined(),
  workOrder: definedText(),
  issueOn: date().required(),
  dueOn: date().required(),
  total: money().required(),
  open: money().required(),
  late: int().required(),
  state: oneOf(invoiceLifecycle.states).required(),
})
export const invoiceDetail = obj({
  id: id().required(),
  version: int().required(),
  customerId: id().required(),
  workOrderId: id().nullable().defined(),
  state: oneOf(invoiceLifecycle.states).required(),
  /** what this person may do with it now */
  acts: list(oneOf(INVOICE_ACTS).required()),
  late: int().required(),
  sent: flag().required(),
  /** what the firm writes with it */
  mail: definedText(8000),
  paid: money().required(),
  open: money().required(),
  paper,
  payments: list(
    obj({
      id: id().required(),
      number: definedText(),
      method: definedText(),
      reference: definedText(),
      on: date().required(),
      amount: money().required(),
      takenBack: backReason().nullable().defined(),
    }),
  ),
  messages: list(
    obj({
      id: id().required(),
      kind: definedText(),
      to: definedText(400),
      state: definedText(),
      createdAt: instant().required(),
      openedAt: instant().nullable().defined(),
    }),
  ),
  link: definedText(300),
  linkUntil: instant().nullable().defined(),
  fields: list(
    obj({
      id: id().required(),
      name: definedText(),
      kind: definedText(),
      choices: list(definedText()),
      value: definedText(400),
    }),
  ),
  history: history(),
})
export const invoiceRoutes = {
  makeInvoice: route({
    method: 'POST',
    path: '/work-orders/{id}/invoice',
    may: 'invoices.make',
    summary:
      'Make the invoice from what is done and not billed, and send it when addresses are given',
    body: obj({
      id: id().required(),
      dueOn: date().nullable().default(null),
      ...sendSchema,
      shownTotal: text(20).default(''),
      /** minutes that no line covers, as they were shown, and why they are not charged */
      leftOut: obj({
        seconds: int().min(60).required(),
        reason: requiredText('Say why these minutes are not charged.', 200),
      })
        .nullable()
        .default(null),
      /** why more is billed than the customer agreed to */
      beyond: text(200).default(''),
      /** where the customer has none: kept with them, and with the work order */
      billing: obj({
        line1: requiredText('Write the address that is billed.', 160),
        town: text(80).default(''),
        postcode: text(20).default(''),
      })
        .nullable()
        .default(null),
      /** visits whose findings are printed on it */
      findingsOf: list(id().required()).max(50).default([]),
      /** how it looks, where not as the customer has it, or as is usual */
      layoutId: id().nullable(),
    }),
    answer: invoiceDetail,
  }),
  invoices: route({
    method: 'GET',
    path: '/invoices',
    may: 'invoices.list',
    summary: 'Invoices',
    query: obj({
      ...listQuery,
      state: oneOf(['open', 'overdue', 'paid', 'unsent'] as const),
      customerId: id(),
    }),
    answer: page(row),
  }),
  invoice: route({
    method: 'GET',
    path: '/invoices/{id}',
    may: 'invoices.see',
    summary: 'An invoice as it was sent, with what came in',
    answer: invoiceDetail,
  }),
  invoiceEarlier: route({
    method: 'GET',
    path: '/invoices/{id}/history',
    may: 'invoices.list',
    summary: 'What happened to an invoice before an entry of its history',
    ...earlier,
  }),
  invoicePdf: route({
    method: 'GET',
    path: '/invoices/{id}.pdf',
    may: 'invoices.see',
    summary: 'The invoice as PDF',
    mime: 'application/pdf',
  }),
  sendInvoice: route({
    method: 'POST',
    path: '/invoices/{id}/send',
    may: 'invoices.make',
    summary: 'Send an invoice by mail; without addresses: note that it was handed over',
    body: obj(sendSchema),
    answer: invoiceDetail,
  }),
  publicInvoice: route({
    method: 'GET',
    path: '/public/invoices/{token}',
    who: 'public',
    summary: 'The customer’s page of an invoice',
    answer: obj({
      paper,
      paid: money().required(),
      open: money().required(),
      state: oneOf(invoiceLifecycle.states).required(),
      now: instant().required(),
    }),
  }),
  publicInvoicePdf: route({
    method: 'GET',
    path: '/public/invoices/{token}.pdf',
    who: 'public',
    summary: 'The customer’s PDF of an invoice',
    mime: 'application/pdf',
  }),
  seenInvoice: route({
    method: 'POST',
    path: '/public/invoices/{token}/seen',
    who: 'public',
    summary: 'A person looks at the customer’s page',
    answer: ok,
  }),
  withdrawLink: route({
    method: 'POST',
    path: '/invoices/{id}/link/withdraw',
    may: 'invoices.link',
    summary: 'End the customer’s private link',
    answer: invoiceDetail,
  }),
  renewLink: route({
    method: 'POST',
    path: '/invoices/{id}/link',
    may: 'invoices.link',
    summary: 'Make another private link; the one before ends',
    answer: invoiceDetail,
  }),
  payByCard: route({
    method: 'POST',
    path: '/public/invoices/{token}/card',
    who: 'public',
    summary: 'Start a card payment; answers where the card is typed (never here)',
    answer: obj({ url: definedText(400) }),
  }),
  messages: route({
    method: 'GET',
    path: '/messages',
    may: 'messages.see',
    summary: 'What was sent to customers: waiting, delivered, opened, failed',
    query: obj({
      ...listQuery,
      state: oneOf(['waiting', 'failed'] as const),
      /** of one customer alone */
      customerId: id(),
    }),
    answer: page(
      obj({
        id: id().required(),
        kind: definedText(),
        channel: definedText(),
        customer: definedText(),
        to: definedText(400),
        subject: definedText(),
        body: definedText(6000),
        state: definedText(),
        error: definedText(300),
        createdAt: instant().required(),
        deliveredAt: instant().nullable().defined(),
        openedAt: instant().nullable().defined(),
        attachment: definedText(),
      }),
    ),
  }),
  retryMessage: route({
    method: 'POST',
    path: '/messages/{id}/retry',
    may: 'messages.retry',
    summary: 'Try a failed message again now',
    answer: ok,
  }),
  letMessageBe: route({
    method: 'POST',
    path: '/messages/{id}/let-be',
    may: 'messages.retry',
    summary: 'Do not send a failed message any more',
    answer: ok,
  }),
}
