// A visit as the schedule shows it, and what is said before it is placed.
import { visitLifecycle } from '../../core/visits/visitLifecycle'
import { number } from 'yup'
import { date, flag, id, instant, int, list, obj, oneOf, time, definedText } from '../schema'

/** A day, and from when to when; without times the day alone is promised. */
export const visitPromise = obj({
  date: date().required('Say on which day.'),
  from: time().nullable().defined(),
  to: time().nullable().defined(),
})
const degrees = () => number().nullable().defined()
export const scheduleVisit = obj({
  id: id().required(),
  version: int().required(),
  workOrderId: id().required(),
  number: definedText(),
  title: definedText(),
  customer: definedText(),
  place: definedText(400),
  town: definedText(),
  technicianId: id().nullable().defined(),
  startAt: instant().nullable().defined(),
  durationSeconds: int().required(),
  state: oneOf(visitLifecycle.states).required(),
  kind: definedText(),
  promiseDate: date().nullable().defined(),
  promiseFrom: time().nullable().defined(),
  promiseTo: time().nullable().defined(),
  promiseStart: instant().nullable().defined(),
  promiseEnd: instant().nullable().defined(),
  /** what the customer was last told, and whether they have to be told anew */
  told: visitPromise.nullable().defined(),
  toTell: flag().required(),
  driveSeconds: int().required(),
  arriveAt: instant().nullable().defined(),
  finishAt: instant().nullable().defined(),
  atRisk: flag().required(),
  lateSeconds: int().required(),
  net: definedText(),
  waiting: definedText(200),
  siteId: id().required(),
  locked: flag().required(),
  note: definedText(),
  crewIds: list(id().required()),
  alongIds: list(id().required()),
  contact: definedText(300),
  accessNote: definedText(400),
  officeNote: definedText(2000),
  quote: definedText(),
  territory: definedText(),
  skills: list(definedText()),
  misfit: definedText(400),
  lat: degrees(),
  lon: degrees(),
})
export const warning = obj({ code: definedText(), text: definedText(300) })
