// Payments by several methods, applied to invoices; what is left over is a credit.
import { BACK_REASON_NAMES } from '../core/payments/takingBack'
import {
  amount,
  date,
  flag,
  id,
  int,
  list,
  listQuery,
  money,
  requiredText,
  obj,
  ok,
  oneOf,
  page,
  route,
  text,
  definedText,
} from './schema'

export const CHARGE_STATES = ['asked', 'approved', 'declined', 'refunding', 'refunded'] as const
export type ChargeState = (typeof CHARGE_STATES)[number]
export const backReason = () => oneOf(BACK_REASON_NAMES)
export const METHODS = ['cash', 'cheque', 'transfer'] as const
export const paymentSchema = obj({
  id: id().required(),
  customerId: id().required(),
  invoiceIds: list(id().required()).default([]),
  method: oneOf(METHODS).required('Choose how it was paid.'),
  amount: amount().required('Write the amount.'),
  reference: text(80).default(''),
  receivedOn: date().nullable().default(null),
  /** what the screen showed as open on what is paid */ shownOpen: amount().default(''),
  /** what is more than is open is kept as a credit, on purpose */ mayLeaveCredit:
    flag().default(false),
  receiptTo: list(text(160).email('This is not a mail address.').required()).default([]),
})
export const paymentRoutes = {
  pay: route({
    method: 'POST',
    path: '/payments',
    may: 'payments.take',
    summary: 'Take a payment',
    body: paymentSchema,
    answer: obj({
      id: id().required(),
      number: definedText(),
      amount: money().required(),
      applied: list(
        obj({
          invoiceId: id().required(),
          number: definedText(),
          amount: money().required(),
          open: money().required(),
        }),
      ),
      left: money().required(),
      /** on all that could be paid by it: the chosen invoices, or all of the customer’s */ stillOpen:
        money().required(),
    }),
  }),
  payments: route({
    method: 'GET',
    path: '/payments',
    may: 'payments.see',
    summary: 'Payments',
    query: obj({ ...listQuery }),
    answer: page(
      obj({
        id: id().required(),
        number: definedText(),
        customer: definedText(),
        method: definedText(),
        reference: definedText(),
        on: date().required(),
        amount: money().required(),
        takenBack: backReason().nullable().defined(),
        takenBy: definedText(),
      }),
    ),
  }),
  takeBack: route({
    method: 'POST',
    path: '/payments/{id}/take-back',
    may: 'payments.takeBack',
    summary: 'A payment that did not hold is reversed, and its invoices are open again',
    body: obj({
      why: backReason().required('Say what became of it.'),
      reason: requiredText('Say why, for whoever reads it later.', 160),
    }),
    answer: ok,
  }),
  cardResult: route({
    method: 'POST',
    path: '/webhooks/card',
    who: 'signature',
    summary: 'The card terminal tells the result, signed',
    body: obj({
      chargeId: id().required(),
      state: oneOf(['approved', 'declined'] as const).required(),
      reference: text(80).default(''),
      reason: text(120).default(''),
      amount: text(20).required(),
      at: int().required(),
    }),
    answer: ok,
  }),
}
