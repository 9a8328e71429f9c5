// What is unpaid: ageing on a date, the worklist with reasons, and what is said and done about it.
import {
  amount,
  date,
  flag,
  id,
  instant,
  int,
  list,
  money,
  obj,
  ok,
  oneOf,
  route,
  text,
  definedText,
} from './schema'
import { sendSchema } from './invoices'

const buckets = {
  current: money().required(),
  d1_30: money().required(),
  d31_60: money().required(),
  d61_90: money().required(),
  over90: money().required(),
  credits: money().required(),
  open: money().required(),
  owed: money().required(),
}
export const unpaid = obj({
  on: date().required(),
  totals: obj(buckets),
  ledger: money().required(),
  agrees: flag().required(),
  resting: int().required(),
  customers: list(
    obj({
      customerId: id().required(),
      name: definedText(),
      oldestLate: int().required(),
      ...buckets,
    }),
  ),
  /** what happened by itself and somebody should know: a card payment that went back */
  notices: list(
    obj({
      id: id().required(),
      invoiceId: id().required(),
      customerId: id().required(),
      name: definedText(),
      text: definedText(300),
      at: instant().required(),
      done: flag().required(),
    }),
  ),
  worklist: list(
    obj({
      customerId: id().required(),
      name: definedText(),
      phone: definedText(),
      email: definedText(),
      owed: money().required(),
      overdue: money().required(),
      late: int().required(),
      reason: definedText(400),
      expectedOn: date().nullable().defined(),
      spreadDays: int().nullable().defined(),
      act: definedText(),
      resting: flag().required(),
    }),
  ),
})
export const owing = obj({
  customerId: id().required(),
  name: definedText(),
  phone: definedText(),
  email: definedText(),
  email2: definedText(),
  /** to be had by mail: has an address, and did not say no */
  mails: flag().required(),
  terms: definedText(),
  habit: definedText(),
  sites: int().required(),
  owed: money().required(),
  credits: money().required(),
  /** on invoices, before credits */ open: money().required(),
  invoices: list(
    obj({
      id: id().required(),
      number: definedText(),
      dueOn: date().required(),
      issueOn: date().required(),
      late: int().required(),
      total: money().required(),
      open: money().required(),
      work: definedText(),
    }),
  ),
  said: list(
    obj({
      id: id().required(),
      kind: definedText(),
      text: definedText(500),
      on: instant().required(),
      who: definedText(),
    }),
  ),
  reminder: obj({
    subject: definedText(),
    body: definedText(8000),
    /** the same words for paper, without links */
    letter: definedText(8000),
    step: int().required(),
    /** what it asks for: what is overdue, or all that is open where nothing is */ asked:
      money().required(),
  }),
})
export const collectionRoutes = {
  unpaid: route({
    method: 'GET',
    path: '/unpaid',
    may: 'collections.work',
    summary: 'Ageing on a date and the worklist',
    query: obj({ on: date() }),
    answer: unpaid,
  }),
  owing: route({
    method: 'GET',
    path: '/customers/{id}/owing',
    may: 'collections.work',
    summary: 'A customer’s open invoices and what was said',
    query: obj({ on: date() }),
    answer: owing,
  }),
  remind: route({
    method: 'POST',
    path: '/customers/{id}/reminders',
    may: 'collections.work',
    summary: 'Send a reminder by mail, or keep it as a letter to be printed',
    body: obj({
      id: id().required(),
      ...sendSchema,
      /** what the screen showed as owed */ shownOwed: text(20).default(''),
      /** which reminder it is, as the screen showed it */
      step: int(1, 100).nullable().default(null),
      /** on paper, to their address */
      letter: flag().default(false),
    }),
    answer: obj({ messageId: id().required() }),
  }),
  letter: route({
    method: 'GET',
    path: '/messages/{id}/letter.pdf',
    may: 'collections.work',
    summary: 'A letter as it was kept, to be printed',
    mime: 'application/pdf',
  }),
  collectionNote: route({
    method: 'POST',
    path: '/customers/{id}/collection-notes',
    may: 'collections.work',
    summary: 'Note a promise to pay, a dispute, no answer, or what was said',
    body: obj({
      id: id().required(),
      kind: oneOf(['promise', 'dispute', 'settled', 'no_answer', 'note'] as const).required(),
      amount: amount().nullable().default(null),
      onDate: date().nullable().default(null),
      text: text(400).default(''),
    }),
    answer: ok,
  }),
}
