// A call: who, what, when; kept while it is typed, and ended by a booking, a visit to quote, a call-back or a polite no.
import { CALL_ABOUT } from '../core/calls/callAbout'
import { FIRST_KIND } from '../core/visits/workKinds'
import {
  date,
  flag,
  id,
  instant,
  int,
  list,
  money,
  requiredText,
  obj,
  ok,
  oneOf,
  route,
  text,
  time,
  timeOrNone,
  definedText,
} from './schema'
import { MOST_CHARGES } from './workKinds'

export const CALL_ORIGINS = ['telephone', 'form', 'hand'] as const
/** What was answered to the firm's questions. */
export const answers = () =>
  list(
    obj({
      questionId: id().required(),
      question: text(160).default(''),
      answer: text(400).default(''),
    }),
  ).max(40)
export const callDraft = obj({
  query: text(160).default(''),
  customerId: id().nullable().default(null),
  siteId: id().nullable().default(null),
  contactId: id().nullable().default(null),
  equipmentId: id().nullable().default(null),
  /** a line of earlier work: what was supplied, and is spoken of */
  suppliedLineId: id().nullable().default(null),
  speaking: text(160).default(''),
  phone: text(32).default(''),
  problem: text(2000).default(''),
  about: oneOf(CALL_ABOUT).default('new_work'),
  kind: text(40).default(FIRST_KIND),
  source: text(60).default(''),
  orderNumber: text(40).default(''),
  answers: answers().default([]),
  entries: list(obj({ entryId: id().required(), quantity: text(12).required() })).default([]),
  /** what the kind of work usually charges, and is not charged, because */
  leftOut: list(obj({ entryId: id().required(), reason: text(200).default('') })).default([]),
  technicianId: id().nullable().default(null),
  date: date().nullable().default(null),
  start: timeOrNone(),
  durationSeconds: int(300, 86_400).default(3600),
  promiseFrom: timeOrNone(),
  promiseTo: timeOrNone(),
  moves: list(
    obj({
      visitId: id().required(),
      customer: text(160).default(''),
      startAt: instant().required(),
    }),
  )
    .max(10)
    .default([]),
  isNew: flag().default(false),
  prospect: flag().default(false),
  name: text(160).default(''),
  email: text(160).default(''),
  line1: text(160).default(''),
  town: text(80).default(''),
  postcode: text(16).default(''),
})
export const bookingSchema = obj({
  workOrderId: id().required(),
  visitId: id().required(),
  customerId: id().required('Choose who is calling.'),
  siteId: id().required('Choose where the work is.'),
  contactId: id().nullable().default(null),
  equipmentId: id().nullable().default(null),
  suppliedLineId: id().nullable().default(null),
  speaking: text(160).default(''),
  phone: text(32).default(''),
  title: text(160).default(''),
  problem: requiredText('Write down what is wrong.', 2000),
  kind: text(40).default(FIRST_KIND),
  source: text(60).default(''),
  orderNumber: text(40).default(''),
  answers: answers().default([]),
  entries: list(
    obj({
      entryId: id().required(),
      quantity: text(12)
        .matches(/^\d{1,6}(\.\d{1,3})?$/, 'Write the quantity as a number.')
        .required(),
    }),
  ).default([]),
  leftOut: list(
    obj({ entryId: id().required(), reason: requiredText('Say why it is not charged.', 200) }),
  )
    .max(MOST_CHARGES)
    .default([]),
  technicianId: id().nullable().default(null),
  date: date().nullable().default(null),
  start: time().nullable().default(null),
  durationSeconds: int(300, 86_400).default(3600),
  promiseFrom: time().nullable().default(null),
  promiseTo: time().nullable().default(null),
  override: flag().default(false),
  reason: text(200).default(''),
  moves: list(obj({ visitId: id().required(), startAt: instant().required() }))
    .max(10)
    .default([]),
})
export const callRow = obj({
  id: id().required(),
  state: definedText(),
  origin: oneOf(CALL_ORIGINS).required(),
  summary: definedText(300),
  waiting: definedText(300),
  late: flag().required(),
  draft: callDraft,
  workOrderId: id().nullable().defined(),
  callBackOn: date().nullable().defined(),
  assignedTo: definedText(),
  takenBy: definedText(),
  createdAt: instant().required(),
  version: int().required(),
  files: list(obj({ id: id().required(), name: definedText(), mime: definedText() })),
})
const COUNTED_BY = ['source', 'kind', 'about'] as const
const counted = () => ({
  calls: int().required(),
  came: obj({
    work: int().required(),
    quote: int().required(),
    answered: int().required(),
    declined: int().required(),
    waiting: int().required(),
  }),
  billed: money().required(),
  paid: money().required(),
})
export const callRoutes = {
  callsCounted: route({
    method: 'GET',
    path: '/calls-counted',
    may: 'calls.see',
    summary: 'Calls of some days by what they have in common, with what came of them in money',
    query: obj({ from: date(), to: date(), by: oneOf(COUNTED_BY) }),
    answer: obj({
      from: date().required(),
      to: date().required(),
      by: oneOf(COUNTED_BY).required(),
      items: list(obj({ key: definedText(), name: definedText(), ...counted() })),
      all: obj(counted()),
    }),
  }),
  requestForm: route({
    method: 'GET',
    path: '/public/request',
    who: 'public',
    summary: 'What the request form shows: the firm, a stamp, and what was sent back',
    query: obj({ form: text(60) }),
    answer: obj({
      firm: definedText(),
      phone: definedText(),
      stamp: definedText(),
      fields: list(obj({ name: definedText(), value: definedText(5000) })),
      detail: definedText(400),
      errors: list(obj({ path: definedText(), message: definedText(400) })),
    }),
  }),
  calls: route({
    method: 'GET',
    path: '/calls',
    may: 'calls.see',
    summary: 'Calls and requests that wait for something',
    answer: obj({ items: list(callRow) }),
  }),
  call: route({
    method: 'GET',
    path: '/calls/{id}',
    may: 'calls.see',
    summary: 'One call',
    answer: callRow,
  }),
  saveCall: route({
    method: 'POST',
    path: '/calls/{id}',
    may: 'calls.take',
    summary: 'Keep a half-filled call; creates it the first time',
    body: obj({
      draft: callDraft,
      summary: text(200).default(''),
      origin: oneOf(['telephone', 'hand'] as const).default('telephone'),
      /** the one that was read; where somebody else typed since, both are to be put together first */
      version: int(0, 2_000_000_000).nullable().default(null),
    }),
    answer: obj({
      ok: flag().required(),
      version: int().required(),
      heldUntil: instant().nullable().defined(),
      heldBy: definedText(),
    }),
  }),
  bookCall: route({
    method: 'POST',
    path: '/calls/{id}/book',
    may: 'calls.take',
    summary: 'Book a call: a work order with its number, and a visit',
    body: bookingSchema,
    answer: obj({ workOrderId: id().required(), number: definedText(), visitId: id().required() }),
  }),
  endedCalls: route({
    method: 'GET',
    path: '/calls-ended',
    may: 'calls.see',
    summary: 'Calls of the last days that no work came of',
    answer: obj({
      items: list(
        obj({
          id: id().required(),
          summary: definedText(300),
          state: oneOf(['declined', 'answered'] as const).required(),
          reason: definedText(300),
          createdAt: instant().required(),
        }),
      ),
    }),
  }),
  reopenCall: route({
    method: 'POST',
    path: '/calls/{id}/reopen',
    may: 'calls.take',
    summary: 'A call that was ended by mistake waits again',
    answer: ok,
  }),
  endCall: route({
    method: 'POST',
    path: '/calls/{id}/end',
    may: 'calls.take',
    summary: 'End a call without a booking',
    body: obj({
      state: oneOf(['put_off', 'declined', 'answered'] as const).required(),
      reason: requiredText('Say why.', 200),
      callBackOn: date().nullable().default(null),
      assignedTo: id().nullable().default(null),
    }),
    answer: ok,
  }),
}
