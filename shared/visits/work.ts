// Work orders: found, followed up, priced, changed.
import { paperDocument } from '../documents'
import { SIGN_PURPOSE_NAMES } from '../../core/visits/signedPaper'
import { eachWorkWord, WORK_WORDS } from '../../core/visits/workWords'
import { MOST_CONTACTS } from '../../core/visits/workContacts'
import { CALL_KINDS, FREE_KINDS } from '../../core/visits/workKinds'
import {
  amount,
  date,
  earlier,
  flag,
  id,
  instant,
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
  version,
  definedText,
} from '../schema'
import { contact, workOrder } from './workOrder'

const MOST_PHASES = 30
const phased = obj({ id: id().required(), phaseId: id().nullable().defined() })
export const workRoutes = {
  workOrders: route({
    method: 'GET',
    path: '/work-orders',
    may: 'visits.list',
    summary: 'Work orders',
    query: obj({
      ...listQuery,
      state: text(60),
      kind: text(40),
      followUp: text(60),
      /** somebody works there */
      onSite: flag(),
    }),
    answer: page(
      obj({
        id: id().required(),
        number: definedText(),
        title: definedText(),
        customer: definedText(),
        town: definedText(),
        kind: definedText(),
        state: definedText(),
        createdAt: instant().required(),
        doneAt: instant().nullable().defined(),
        toBill: money().required(),
        why: definedText(300),
        technician: definedText(),
        startedAt: instant().nullable().defined(),
        followUp: definedText(),
        followUpOn: date().nullable().defined(),
        overdue: flag().required(),
      }),
    ),
  }),
  followUpLists: route({
    method: 'GET',
    path: '/follow-up-lists',
    may: 'visits.list',
    summary: 'The lists in which work is parked',
    answer: obj({ items: list(definedText()) }),
  }),
  followUp: route({
    method: 'POST',
    path: '/work-orders/{id}/follow-up',
    may: 'visits.follow',
    summary: 'Park a work order in a list, to come back to on a day; an empty list takes it off',
    body: obj({
      version: version(),
      list: text(60).default(''),
      on: date().nullable().default(null),
    }),
    answer: workOrder,
  }),
  workOrder: route({
    method: 'GET',
    path: '/work-orders/{id}',
    may: 'visits.see',
    summary: 'A work order with its four-column account',
    answer: workOrder,
  }),
  workOrderEarlier: route({
    method: 'GET',
    path: '/work-orders/{id}/history',
    may: 'visits.see',
    summary: 'What happened to a work order before an entry of its history',
    ...earlier,
  }),
  sign: route({
    method: 'POST',
    path: '/work-orders/{id}/signatures',
    may: 'visits.sign',
    summary: 'The customer agrees to the lines as shown',
    maxBytes: 400_000,
    body: obj({
      id: id().required(),
      visitId: id().nullable().default(null),
      name: requiredText('Write the name of the person who signs.', 120),
      /** a company, and as what somebody signs for it; empty for themselves */
      company: text(160).default(''),
      role: text(60).default(''),
      purpose: oneOf(SIGN_PURPOSE_NAMES).default('before'),
      image: requiredText('Sign in the box first.', 380_000),
      shownTotal: amount().required(),
    }),
    answer: workOrder,
  }),
  signedPaper: route({
    method: 'GET',
    path: '/signatures/{id}/paper',
    may: 'visits.see',
    summary: 'What was signed, as it was signed',
    answer: paperDocument,
  }),
  signature: route({
    method: 'GET',
    path: '/signatures/{id}',
    may: 'visits.see',
    summary: 'A signature as a picture',
    mime: 'image/png',
  }),
  addPhoto: route({
    method: 'POST',
    path: '/work-orders/{id}/photos',
    may: 'visits.write',
    summary: 'Keep a photo (JPEG, PNG or WebP, 5 MB at most)',
    maxBytes: 7_000_000,
    body: obj({ id: id().required(), data: requiredText('Choose a picture.', 6_900_000) }),
    answer: ok,
  }),
  photo: route({
    method: 'GET',
    path: '/photos/{id}',
    may: 'visits.see',
    summary: 'A photo; small, as lists show it',
    query: obj({ size: oneOf(['full', 'small']).default('full') }),
    mime: 'image/*',
  }),
  callBack: route({
    method: 'POST',
    path: '/work-orders/{id}/call-backs',
    may: 'visits.follow',
    summary:
      'Come back without charge: a call-back or a warranty visit, whose cost counts on the first work order',
    body: obj({
      workOrderId: id().required(),
      visitId: id().required(),
      kind: oneOf(FREE_KINDS).default('call_back'),
      problem: requiredText('Write down what is wrong again.', 2000),
    }),
    answer: obj({ workOrderId: id().required(), number: definedText() }),
  }),
  carryOver: route({
    method: 'POST',
    path: '/work-orders/{id}/details',
    may: 'visits.follow',
    summary: 'Carry the customer’s present details over into the work order',
    answer: workOrder,
  }),
  beginBill: route({
    method: 'POST',
    path: '/work-orders',
    may: 'invoices.make',
    summary: 'Something to bill without a visit: sold over the counter, or done already',
    body: obj({
      id: id().required(),
      customerId: id().required('Choose the customer.'),
      siteId: id().required('Choose where it is for.'),
      title: requiredText('Say what is billed.', WORK_WORDS.title.most),
      kind: oneOf(CALL_KINDS).default('repair'),
    }),
    answer: workOrder,
  }),
  keepPhases: route({
    method: 'POST',
    path: '/work-orders/{id}/phases',
    may: 'visits.follow',
    summary: 'The phases of long work, and which of its visits and lines belong to which',
    body: obj({
      version: version(),
      phases: list(obj({ id: id().required(), name: requiredText('Name the phase.', 80) })).max(
        MOST_PHASES,
        'These are too many phases.',
      ),
      /** what is not named stays where it is */
      visits: list(phased).max(500),
      lines: list(phased).max(2000),
    }),
    answer: workOrder,
  }),
  writeWorkOrder: route({
    method: 'PATCH',
    path: '/work-orders/{id}',
    may: 'visits.follow',
    summary: 'Change the words of a work order',
    body: obj({
      version: version(),
      ...eachWorkWord((word) => text(WORK_WORDS[word].most)),
      title: text(WORK_WORDS.title.most).min(1, 'Write a title.'),
      kind: oneOf(CALL_KINDS),
      contact: contact.optional().default(undefined),
      otherContacts: list(contact).max(MOST_CONTACTS, 'These are too many people.').optional(),
    }),
    answer: workOrder,
  }),
  closeWorkOrder: route({
    method: 'POST',
    path: '/work-orders/{id}/close',
    may: 'visits.close',
    summary: 'Close a work order that has nothing to bill',
    body: obj({ reason: requiredText('Say why nothing is billed.', 200) }),
    answer: workOrder,
  }),
  cancelWorkOrder: route({
    method: 'POST',
    path: '/work-orders/{id}/cancel',
    may: 'visits.cancel',
    summary: 'Cancel a work order that nothing came of, with its visits to come',
    body: obj({
      reason: requiredText('Say why it will not be.', 200),
      /** the customer knows already */
      known: flag().default(false),
    }),
    answer: workOrder,
  }),
  reopenWorkOrder: route({
    method: 'POST',
    path: '/work-orders/{id}/reopen',
    may: 'visits.cancel',
    summary: 'Go on with a work order that was closed or cancelled',
    body: obj({ reason: requiredText('Say why it goes on.', 200) }),
    answer: workOrder,
  }),
}
