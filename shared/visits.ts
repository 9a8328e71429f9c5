// Work orders with their account, visits with their clock, lines, signatures, photos.
import { ALL, INDOORS, amount, date, decimal, flag, id, instant, int, list, listQuery, money, need, obj, ok, oneOf, page, route, text, version, words, quantity } from './schema'

export const CLOCK_ACTS = ['set_off', 'arrive', 'pause', 'resume', 'finish', 'no_access'] as const
const line = obj({
  id: id().required(), version: int().required(), kind: words(), name: words(), unit: words(), quantity: words(), unitPrice: words(), bookPrice: words().nullable(), unitCost: words().nullable(), priceFrom: words(), supplier: words(), partNumber: words(),
  discount: money().required(), done: flag().required(), net: money().required(), saving: money().required(), taxClass: words(), coversSeconds: int().required(), visitId: id().nullable().defined(),
  promised: money().required(), doneAmount: money().required(), billed: money().required(), paid: money().required(), toBill: money().required(), unpaid: money().required(),
})
export const workOrder = obj({
  followUp: words(), followUpOn: date().nullable().defined(),
  callbackOf: obj({ id: id().required(), number: words() }).nullable().default(undefined), callBacks: list(obj({ id: id().required(), number: words(), kind: words(), state: words(), siteSeconds: int().required(), cost: money().nullable().default(undefined) })),
  id: id().required(), version: int().required(), number: words(), title: words(), problem: words(2000), kind: words(), state: words(), orderNumber: words(), currency: words(), createdAt: instant().required(),
  customer: obj({ id: id().required(), name: words(), phone: words(), email: words(), email2: words(), exempt: flag().required(), level: words(), terms: words(), stopWork: words(), officeNote: words(2000), address: words(400), tags: list(words()) }),
  site: obj({ id: id().required(), name: words(), line1: words(), town: words(), accessNote: words(400) }),
  contact: obj({ name: words(), phone: words() }), printedNote: words(400), equipment: words(300), changedDetails: list(obj({ name: words(), was: words(2000), is: words(2000) })),
  answers: list(obj({ question: words(), answer: words(400) })), fields: list(obj({ id: id().required(), name: words(), kind: words(), choices: list(words()), value: words(400) })),
  visits: list(obj({ id: id().required(), version: int().required(), technicianId: id().nullable().defined(), technician: words(), startAt: instant().nullable().defined(), state: words(), driveSeconds: int().required(), siteSeconds: int().required(), along: list(obj({ name: words(), seconds: int().required() })), startedAt: instant().nullable().defined(), finishedAt: instant().nullable().defined(), promise: words(), findings: words(4000) })),
  lines: list(line),
  totals: obj({ promised: money().required(), done: money().required(), billed: money().required(), paid: money().required(), beyondPromise: money().required(), toBill: money().required(), unpaid: money().required() }),
  price: obj({ net: money().required(), taxes: list(obj({ name: words(), rate: words(), tax: money().required() })), tax: money().required(), total: money().required(), saving: money().required(), savingLevel: words(), cost: money().nullable().defined(), margin: int().nullable().defined() }),
  bill: obj({ net: money().required(), tax: money().required(), total: money().required(), dueOn: date().required(), issueOn: date().required(), missing: list(words(300)) }),
  time: obj({ siteSeconds: int().required(), coveredSeconds: int().required(), explainedSeconds: int().required(), uncoveredSeconds: int().required(), charge: money().required() }),
  /** labour and charges, with who says what they cost here: the strongest is the last that says something */
  rates: list(obj({ entryId: id().required(), name: words(), book: words(), customer: words().nullable(), workOrder: words().nullable() })),
  invoices: list(obj({ id: id().required(), number: words(), issueOn: date().required(), dueOn: date().required(), total: money().required(), open: money().required(), sent: flag().required(), state: words() })),
  quotes: list(obj({ id: id().required(), number: words(), state: words(), total: money().required() })), source: words(),
  signatures: list(obj({ id: id().required(), name: words(), signedAt: instant().required(), takenBy: words(), total: money().required() })),
  photos: list(obj({ id: id().required(), takenAt: instant().required() })),
  history: list(obj({ id: int().required(), at: instant().required(), who: words(), text: words(400) })),
})
const fieldVisit = obj({
  id: id().required(), workOrderId: id().required(), number: words(), title: words(), customer: words(), place: words(400), accessNote: words(400), contact: words(), phone: words(), promise: words(), startAt: instant().nullable().defined(),
  durationSeconds: int().required(), driveSeconds: int().required(), state: words(), total: money().nullable().defined(), officeNote: words(2000), lead: words(),
})
export const fieldDay = obj({ date: date().required(), now: instant().required(), visits: list(fieldVisit), openVisitId: id().nullable().defined() })
export const fieldVisitDetail = obj({ visit: fieldVisit, findings: words(4000), version: int().required(), clock: obj({ kind: words().nullable(), since: instant().nullable().defined(), driveSeconds: int().required(), siteSeconds: int().required() }), openVisitId: id().nullable().defined(), workOrder })
export const visitRoutes = {
  workOrders: route({ method: 'GET', path: '/work-orders', who: INDOORS, summary: 'Work orders', query: obj({ ...listQuery, state: text(60), kind: text(40), followUp: text(60) }), answer: page(obj({ id: id().required(), number: words(), title: words(), customer: words(), town: words(), kind: words(), state: words(), createdAt: instant().required(), doneAt: instant().nullable().defined(), toBill: money().required(), why: words(300), technician: words(), startedAt: instant().nullable().defined(), followUp: words(), followUpOn: date().nullable().defined(), overdue: flag().required() })) }),
  followUpLists: route({ method: 'GET', path: '/follow-up-lists', who: INDOORS, summary: 'The lists in which work is parked', answer: obj({ items: list(words()) }) }),
  followUp: route({ method: 'POST', path: '/work-orders/{id}/follow-up', who: ['owner', 'office', 'dispatch'], summary: 'Park a work order in a list, to come back to on a day; an empty list takes it off', body: obj({ version: version(), list: text(60).default(''), on: date().nullable().default(null) }), answer: workOrder }),
  workOrder: route({ method: 'GET', path: '/work-orders/{id}', who: ALL, summary: 'A work order with its four-column account', answer: workOrder }),
  keepWorkRates: route({ method: 'POST', path: '/work-orders/{id}/rates', who: ['owner', 'office'], summary: 'Rates of labour and charges for this work order alone', body: obj({ version: version(), rates: list(obj({ entryId: id().required(), price: amount().required('Write the price.') })).max(50) }), answer: workOrder }),
  addLines: route({ method: 'POST', path: '/work-orders/{id}/lines', who: ['owner', 'office', 'dispatch', 'technician'], summary: 'Add lines, from the price book or one-off', body: obj({ visitId: id().nullable().default(null), lines: list(obj({ id: id().required(), entryId: id().nullable().default(null), kind: oneOf(['task', 'part', 'labour', 'charge', 'other'] as const), name: text(160), quantity: quantity(6).required('Write the quantity.'), unitPrice: decimal('Write the price as a number, for example 48.60.'), cost: decimal('Write the cost as a number, for example 21.40.'), done: flag().default(true) })) }), answer: workOrder }),
  changeLine: route({ method: 'PATCH', path: '/work-lines/{id}', who: ['owner', 'office', 'dispatch', 'technician'], summary: 'Change a line of this work order only', body: obj({ version: version(), name: text(160).min(1, 'Write what it is.'), quantity: quantity(6), unitPrice: decimal('Write the price as a number, for example 48.60.'), discount: text(16), done: flag(), removed: flag() }), answer: workOrder }),
  discountLines: route({ method: 'POST', path: '/work-orders/{id}/discount', who: ['owner', 'office'], summary: 'Take an amount or a percentage off all lines that are not billed, shared by what they cost', body: obj({ discount: text(16).min(1, 'Write an amount or a percentage, for example 25.00 or 10 %.').required() }), answer: workOrder }),
  sign: route({ method: 'POST', path: '/work-orders/{id}/signatures', who: ['owner', 'office', 'technician'], summary: 'The customer agrees to the lines as shown', maxBytes: 400_000, body: obj({ id: id().required(), visitId: id().nullable().default(null), name: need('Write the name of the person who signs.', 120), image: need('Sign in the box first.', 380_000), shownTotal: amount().required() }), answer: workOrder }),
  signature: route({ method: 'GET', path: '/signatures/{id}', who: ALL, summary: 'A signature as a picture', mime: 'image/png' }),
  addPhoto: route({ method: 'POST', path: '/work-orders/{id}/photos', who: ['owner', 'office', 'dispatch', 'technician'], summary: 'Keep a photo (JPEG, PNG or WebP, 5 MB at most)', maxBytes: 7_000_000, body: obj({ id: id().required(), data: need('Choose a picture.', 6_900_000) }), answer: ok }),
  photo: route({ method: 'GET', path: '/photos/{id}', who: ALL, summary: 'A photo', mime: 'image/*' }),
  explainTime: route({ method: 'POST', path: '/work-orders/{id}/explanations', who: ['owner', 'office', 'technician'], summary: 'Leave minutes out of the bill, and say why', body: obj({ seconds: int(60, 86_400).required(), reason: need('Say why these minutes are not charged.', 200) }), answer: workOrder }),
  chargeTime: route({ method: 'POST', path: '/work-orders/{id}/time-charges', who: ['owner', 'office', 'technician'], summary: 'Charge the minutes that no line covers', body: obj({ lineId: id().required() }), answer: workOrder }),
  callBack: route({ method: 'POST', path: '/work-orders/{id}/call-backs', who: ['owner', 'office', 'dispatch'], summary: 'Come back without charge: a call-back or a warranty visit, whose cost counts on the first work order', body: obj({ workOrderId: id().required(), visitId: id().required(), kind: oneOf(['call-back', 'warranty'] as const).default('call-back'), problem: need('Write down what is wrong again.', 2000) }), answer: obj({ workOrderId: id().required(), number: words() }) }),
  carryOver: route({ method: 'POST', path: '/work-orders/{id}/details', who: ['owner', 'office', 'dispatch'], summary: 'Carry the customer’s present details over into the work order', answer: workOrder }),
  writeWorkOrder: route({ method: 'PATCH', path: '/work-orders/{id}', who: ['owner', 'office', 'dispatch'], summary: 'Change the words of a work order', body: obj({ version: version(), title: text(160).min(1, 'Write a title.'), problem: text(2000), orderNumber: text(40), printedNote: text(400) }), answer: workOrder }),
  closeWorkOrder: route({ method: 'POST', path: '/work-orders/{id}/close', who: ['owner', 'office', 'books'], summary: 'Close a work order that has nothing to bill', body: obj({ reason: need('Say why nothing is billed.', 200) }), answer: workOrder }),
  fieldDay: route({ method: 'GET', path: '/field/day', who: ALL, summary: 'My visits of a day, in order', query: obj({ date: date() }), answer: fieldDay }),
  fieldVisit: route({ method: 'GET', path: '/field/visits/{id}', who: ALL, summary: 'One visit as its technician needs it', answer: fieldVisitDetail }),
  clock: route({ method: 'POST', path: '/visits/{id}/clock', who: ALL, summary: 'Set off, arrive, pause, resume, finish, no access', body: obj({ act: oneOf(CLOCK_ACTS).required('Say what happens.'), at: instant() }), answer: fieldVisitDetail }),
  findings: route({ method: 'PATCH', path: '/visits/{id}', who: ['owner', 'office', 'dispatch', 'technician'], summary: 'Write down what was found and done', body: obj({ version: version(), findings: text(4000).defined() }), answer: fieldVisitDetail }),
}
