// A call: who, what, when; kept while it is typed, and ended by a booking, a call-back or a polite no.
import { DESK, INDOORS, date, flag, id, instant, int, list, mail, need, obj, ok, oneOf, route, text, time, words } from './schema'

export const CALL_KINDS = ['repair', 'no water', 'service', 'installation', 'water test', 'quote visit'] as const
export const callDraft = obj({
  query: text(160).default(''), customerId: id().nullable().default(null), siteId: id().nullable().default(null), speaking: text(160).default(''), phone: text(32).default(''),
  problem: text(2000).default(''), kind: text(40).default('repair'), source: text(60).default(''), orderNumber: text(40).default(''),
  entries: list(obj({ entryId: id().required(), quantity: text(12).required() })).default([]),
  technicianId: id().nullable().default(null), date: date().nullable().default(null), start: text(5).default(''), durationSeconds: int(300, 86_400).default(3600),
  promiseFrom: text(5).default(''), promiseTo: text(5).default(''),
  isNew: flag().default(false), name: text(160).default(''), email: text(160).default(''), line1: text(160).default(''), town: text(80).default(''), postcode: text(16).default(''),
})
export const bookingSchema = obj({
  workOrderId: id().required(), visitId: id().required(), customerId: id().required('Choose who is calling.'), siteId: id().required('Choose where the work is.'),
  speaking: text(160).default(''), phone: text(32).default(''), title: text(160).default(''), problem: need('Write down what is wrong.', 2000), kind: oneOf(CALL_KINDS).default('repair'),
  source: text(60).default(''), orderNumber: text(40).default(''), entries: list(obj({ entryId: id().required(), quantity: text(12).matches(/^\d{1,6}(\.\d{1,3})?$/, 'Write the quantity as a number.').required() })).default([]),
  technicianId: id().nullable().default(null), date: date().nullable().default(null), start: time().nullable().default(null), durationSeconds: int(300, 86_400).default(3600),
  promiseFrom: time().nullable().default(null), promiseTo: time().nullable().default(null), override: flag().default(false),
})
export const callRow = obj({ id: id().required(), state: words(), summary: words(300), waiting: words(200), draft: callDraft, workOrderId: id().nullable().defined(), callBackOn: date().nullable().defined(), takenBy: words(), createdAt: instant().required(), version: int().required() })
export const callRoutes = {
  calls: route({ method: 'GET', path: '/calls', who: INDOORS, summary: 'Calls that wait for something', answer: obj({ items: list(callRow) }) }),
  call: route({ method: 'GET', path: '/calls/{id}', who: INDOORS, summary: 'One call', answer: callRow }),
  saveCall: route({ method: 'POST', path: '/calls/{id}', who: DESK, summary: 'Keep a half-filled call; creates it the first time', body: obj({ draft: callDraft, summary: text(200).default('') }), answer: ok }),
  bookCall: route({ method: 'POST', path: '/calls/{id}/book', who: DESK, summary: 'Book a call: a work order with its number, and a visit', body: bookingSchema, answer: obj({ workOrderId: id().required(), number: words(), visitId: id().required() }) }),
  endCall: route({ method: 'POST', path: '/calls/{id}/end', who: DESK, summary: 'End a call without a booking', body: obj({ state: oneOf(['put_off', 'declined'] as const).required(), reason: need('Say why.', 200), callBackOn: date().nullable().default(null), email: mail().default('') }), answer: ok }),
}
