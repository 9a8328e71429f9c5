// A technician's day and visits, on the phone.
import { CLOCK_KIND_NAMES } from '../../core/hours/mendTime'
import { CLOCK_ACTS, NEXT_STEPS, visitLifecycle } from '../../core/visits/visitLifecycle'
import {
  date,
  flag,
  id,
  instant,
  int,
  list,
  money,
  obj,
  oneOf,
  requiredText,
  route,
  text,
  version,
  definedText,
} from '../schema'
import { contact, workOrder } from './workOrder'

const fieldVisit = obj({
  id: id().required(),
  workOrderId: id().required(),
  number: definedText(),
  title: definedText(),
  customer: definedText(),
  place: definedText(400),
  accessNote: definedText(400),
  contact: definedText(),
  phone: definedText(),
  /** their second number */
  phone2: definedText(),
  otherContacts: list(contact),
  tags: list(definedText()),
  promise: definedText(),
  startAt: instant().nullable().defined(),
  durationSeconds: int().required(),
  driveSeconds: int().required(),
  state: oneOf(visitLifecycle.states).required(),
  total: money().nullable().defined(),
  officeNote: definedText(2000),
  lead: definedText(),
})
export const fieldDay = obj({
  date: date().required(),
  now: instant().required(),
  visits: list(fieldVisit),
  /** of the days before, and never begun */
  notBegun: list(fieldVisit),
  openVisitId: id().nullable().defined(),
})
export const fieldVisitDetail = obj({
  visit: fieldVisit,
  findings: definedText(4000),
  version: int().required(),
  clock: obj({
    kind: definedText().nullable(),
    since: instant().nullable().defined(),
    driveSeconds: int().required(),
    siteSeconds: int().required(),
  }),
  openVisitId: id().nullable().defined(),
  /** after a closed door: what was proposed for the visit that comes again */
  proposed: obj({ step: oneOf(NEXT_STEPS).nullable().defined(), note: definedText() })
    .nullable()
    .default(null),
  /** what whoever asks may do with its clock now, the likeliest first */
  acts: list(oneOf(CLOCK_ACTS).required()),
  workOrder,
})

export const onSiteRoutes = {
  fieldDay: route({
    method: 'GET',
    path: '/field/day',
    may: 'visits.see',
    summary: 'My visits of a day, in order',
    query: obj({ date: date() }),
    answer: fieldDay,
  }),
  fieldVisit: route({
    method: 'GET',
    path: '/field/visits/{id}',
    may: 'visits.see',
    summary: 'One visit as its technician needs it',
    answer: fieldVisitDetail,
  }),
  clock: route({
    method: 'POST',
    path: '/visits/{id}/clock',
    may: 'visits.clock',
    summary: 'Set off, arrive, pause, resume, finish, no access',
    body: obj({
      act: oneOf(CLOCK_ACTS).required('Say what happens.'),
      at: instant(),
      /** begin it, although it is planned for another day */
      otherDay: flag().default(false),
    }),
    answer: fieldVisitDetail,
  }),
  enterTime: route({
    method: 'POST',
    path: '/visits/{id}/times',
    may: 'visits.mendTime',
    summary: 'Enter time that nobody clocked',
    body: obj({
      id: id().required(),
      personId: id().required('Say whose time it is.'),
      kind: oneOf(CLOCK_KIND_NAMES).required('Say what was done.'),
      from: instant().required('Say from when.'),
      to: instant().required('Say until when.'),
      reason: requiredText('Say why it is entered by hand.', 160),
    }),
    answer: workOrder,
  }),
  mendTime: route({
    method: 'POST',
    path: '/times/{id}',
    may: 'visits.mendTime',
    summary: 'Correct time that was clocked wrongly, or take it out',
    body: obj({
      /** as it was read */
      was: obj({ from: instant().required(), to: instant().nullable().defined() }),
      kind: oneOf(CLOCK_KIND_NAMES).required('Say what was done.'),
      from: instant().required('Say from when.'),
      to: instant().nullable().defined(),
      removed: flag().default(false),
      reason: requiredText('Say why it is changed.', 160),
    }),
    answer: workOrder,
  }),
  proposeNext: route({
    method: 'POST',
    path: '/visits/{id}/next-step',
    may: 'visits.clock',
    summary: 'After a closed door: come again, ring them, give it up',
    body: obj({
      step: oneOf(NEXT_STEPS).required('Say what is to be done.'),
      note: text(160).default(''),
    }),
    answer: fieldVisitDetail,
  }),
  findings: route({
    method: 'PATCH',
    path: '/visits/{id}',
    may: 'visits.write',
    summary: 'Write down what was found and done',
    body: obj({ version: version(), findings: text(4000).defined() }),
    answer: fieldVisitDetail,
  }),
}
