// What several routes of customers speak of.
import * as yup from 'yup'
import { quoteLifecycle } from '../../core/quotes/quoteLifecycle'
import { date, id, int, list, money, obj, oneOf, text, definedText } from '../schema'

export const CONSENT = ['not asked', 'yes', 'no'] as const
export const TERMS = ['receipt', 'days', 'month_end', 'next_month_day'] as const
export const terms = () =>
  obj({ kind: oneOf(TERMS).required(), days: int(0, 365), day: int(1, 31) })
export const tags = () =>
  list(text(40).min(1, 'A tag without a word.').defined()).max(12, 'Not more than 12 tags.')
/** Values of the fields that the firm invented, by the field's identifier. */
export const customValues = () =>
  yup
    .object()
    .default(undefined)
    .test('texts', 'The firm’s own fields hold texts.', (v) =>
      Object.values(v ?? {}).every((x) => typeof x === 'string' && x.isWellFormed()),
    )
    .test(
      'small',
      'Too much in the firm’s own fields.',
      (v) => JSON.stringify(v ?? {}).length < 8000,
    )
    .meta({ free: true })
export const siteShape = obj({
  id: id().required(),
  version: int().required(),
  name: definedText(),
  line1: definedText(),
  town: definedText(),
  postcode: definedText(),
  accessNote: definedText(400),
  lat: yup.number().nullable().optional(),
  lon: yup.number().nullable().optional(),
  /** both, as they are written */
  place: definedText(),
  territory: definedText(),
  custom: customValues(),
})
export const contactShape = obj({
  id: id().required(),
  version: int().required(),
  siteId: id().nullable().defined(),
  name: definedText(),
  role: definedText(),
  phone: definedText(),
  phone2: definedText(),
  email: definedText(),
})
export const equipmentShape = obj({
  id: id().required(),
  version: int().required(),
  siteId: id().required(),
  category: definedText(),
  make: definedText(),
  serial: definedText(),
  installedOn: date().nullable().defined(),
  warrantyUntil: date().nullable().defined(),
  nextServiceOn: date().nullable().defined(),
  note: definedText(),
  state: definedText(),
})
export const agreementShape = obj({
  id: id().required(),
  plan: definedText(),
  startsOn: date().required(),
  endsOn: date().required(),
  visitDueOn: date().nullable().defined(),
  state: definedText(),
})
export const workShape = obj({
  id: id().required(),
  number: definedText(),
  title: definedText(),
  state: definedText(),
  on: date().required(),
  equipmentId: id().nullable().defined(),
})
export const quoteShape = obj({
  id: id().required(),
  number: definedText(),
  title: definedText(),
  state: oneOf(quoteLifecycle.states).required(),
  waiting: definedText(),
  total: money().required(),
})
export const suppliedShape = obj({
  lineId: id().required(),
  siteId: id().required(),
  on: date().required(),
  name: definedText(),
  workOrderId: id().required(),
  number: definedText(),
  /** the last day of the firm's warranty on it, where it gives one */
  warrantyUntil: date().nullable().defined(),
})
export const alike = obj({
  customerId: id().required(),
  name: definedText(),
  phone: definedText(),
  place: definedText(400),
  score: yup.number().required(),
  reasons: list(definedText()),
})
