// The schedule of a day: technicians down, visits with promise and drive, time off, and the tray of what has no slot.
import { ALL, DESK, INDOORS, OFFICE, date, flag, id, instant, int, list, mail, need, obj, ok, oneOf, route, text, time, version, words } from './schema'

export const scheduleVisit = obj({
  id: id().required(), version: int().required(), workOrderId: id().required(), number: words(), title: words(), customer: words(), place: words(400), town: words(),
  technicianId: id().nullable().defined(), startAt: instant().nullable().defined(), durationSeconds: int().required(), state: words(), kind: words(),
  promiseDate: date().nullable().defined(), promiseFrom: time().nullable().defined(), promiseTo: time().nullable().defined(), promiseStart: instant().nullable().defined(), promiseEnd: instant().nullable().defined(),
  driveSeconds: int().required(), arriveAt: instant().nullable().defined(), finishAt: instant().nullable().defined(), atRisk: flag().required(), lateSeconds: int().required(), net: words(), waiting: words(200),
})
export const schedule = obj({
  date: date().required(), holiday: words(), now: instant().required(), dayStart: instant().required(), dayEnd: instant().required(),
  technicians: list(obj({ id: id().required(), name: words(), skills: list(words()), territories: list(words()), working: list(obj({ from: instant().required(), to: instant().required() })), timeOff: list(obj({ from: instant().required(), to: instant().required(), reason: words() })) })),
  visits: list(scheduleVisit), held: list(obj({ callId: id().required(), technicianId: id().required(), startAt: instant().required(), durationSeconds: int().required(), summary: words(), missing: words() })), tray: list(scheduleVisit),
  week: list(obj({ date: date().required(), morning: int().required(), afternoon: int().required(), capacityMorning: int().required(), capacityAfternoon: int().required() })),
  driveSeconds: int().required(), atRisk: int().required(),
})
export const PARTS = ['any', 'morning', 'afternoon'] as const
export const ORDERS = ['best', 'first', 'cheapest', 'known'] as const
export const opening = obj({
  technicianId: id().required(), technician: words(), date: date().required(), startAt: instant().required(), promiseFrom: time().required(), promiseTo: time().required(), extraDriveSeconds: int().required(), dayEndAt: instant().required(), overtimeSeconds: int().required(),
  sound: flag().required(), score: int().required(), reasons: list(words(300)),
})
const facts = () => obj({ broken: int().required(), unserved: int().required(), overtimeSeconds: int().required(), drivingSeconds: int().required(), total: int().required() })
const spot = () => obj({ technicianId: id().nullable().defined(), technician: words(), startAt: instant().nullable().defined() })
export const dayPlan = obj({
  id: id().required(), state: oneOf(['running', 'ready', 'accepted', 'stopped', 'failed'] as const).required(), progress: int().required(), problem: words(), askedAt: instant().required(), dates: list(date().required()), absent: words(),
  before: facts().nullable().default(undefined), after: facts().nullable().default(undefined),
  changes: list(obj({ visitId: id().required(), version: int().required(), durationSeconds: int().required(), number: words(), title: words(), customer: words(), promise: words(), kept: flag().required(), from: spot(), to: spot(), why: words(300) })),
})
const roads = obj({ network: obj({ name: words(), lines: int().required(), positions: int().required(), parts: int().required(), importedAt: instant().required() }).nullable().defined() })
const hours = obj({ weekday: int(1, 7).required(), from: time().required('Say when the day begins.'), to: time().required('Say when the day ends.'), morning: int(0, 20).required(), afternoon: int(0, 20).required() })
const technician = obj({
  id: id().required(), version: int().required(), name: words(), skills: list(words()), territoryIds: list(id().required()), hours: list(hours), placeKnown: flag().required(),
  off: list(obj({ id: id().required(), from: instant().required(), to: instant().required(), reason: words() })), entries: list(obj({ id: id().required(), from: instant().required(), to: instant().required(), title: words() })), calendar: flag().required(),
})
export const scheduleSetUp = obj({
  technicians: list(technician), territories: list(obj({ id: id().required(), name: words(), postcodes: list(words()), people: list(words()), sites: int().required() })), holidays: list(obj({ date: date().required(), name: words() })), sitesNowhere: int().required(), roads: words(),
  guide: list(obj({ code: words(), done: flag().required(), text: words(300), where: words() })),
})
const warning = obj({ code: words(), text: words(300) })
export const dispatchRoutes = {
  scheduleSetUp: route({ method: 'GET', path: '/schedule-set-up', who: DESK, summary: 'Hours, time off, territories and roads; and what is still missing for scheduling', answer: scheduleSetUp }),
  changeTechnician: route({ method: 'PATCH', path: '/technicians/{id}', who: OFFICE, summary: 'Weekly hours with capacity, skills and territories of a technician', body: obj({ version: version(), hours: list(hours).max(7), skills: list(text(60).min(1).defined()).max(30), territoryIds: list(id().required()).max(50) }), answer: scheduleSetUp }),
  addTimeOff: route({ method: 'POST', path: '/time-off', who: DESK, summary: 'Time off with its reason', body: obj({ id: id().required(), personId: id().required('Say who is off.'), from: date().required('Say from when.'), fromTime: time().nullable().default(null), to: date().required('Say until when.'), toTime: time().nullable().default(null), reason: need('Say why.', 160) }), answer: scheduleSetUp }),
  removeTimeOff: route({ method: 'POST', path: '/time-off/{id}/remove', who: DESK, summary: 'Take time off back', answer: scheduleSetUp }),
  addEntry: route({ method: 'POST', path: '/day-entries', who: DESK, summary: 'An entry that is no visit: a meeting, a training', body: obj({ id: id().required(), personId: id().required('Say for whom.'), date: date().required('Say on which day.'), from: time().required('Say from when.'), to: time().required('Say until when.'), title: need('Say what it is.', 120) }), answer: scheduleSetUp }),
  removeEntry: route({ method: 'POST', path: '/day-entries/{id}/remove', who: DESK, summary: 'Take an entry back', answer: scheduleSetUp }),
  keepTerritory: route({ method: 'POST', path: '/territories', who: OFFICE, summary: 'Add or change a territory: its name and postcodes, single ones and ranges', body: obj({ id: id().required(), name: need('Name the territory.', 80), postcodes: need('Write its postcodes.', 4000) }), answer: scheduleSetUp }),
  keepHoliday: route({ method: 'POST', path: '/holidays', who: OFFICE, summary: 'A day on which nobody works; without a name it is taken back', body: obj({ date: date().required('Say which day.'), name: text(80).default('') }), answer: scheduleSetUp }),
  newCalendar: route({ method: 'POST', path: '/technicians/{id}/calendar', who: [...DESK, 'technician'], summary: 'A private calendar feed for a technician; the link before it ends', answer: obj({ url: words(300) }) }),
  calendar: route({ method: 'GET', path: '/public/calendars/{token}.ics', who: 'public', summary: 'A technician’s visits as a calendar (RFC 5545), by private link', mime: 'text/calendar' }),
  roads: route({ method: 'GET', path: '/roads', who: DESK, summary: 'The road network in use', answer: roads }),
  importRoads: route({ method: 'POST', path: '/roads', who: OFFICE, summary: 'Take another road network: GeoJSON lines (RFC 7946) with speeds', maxBytes: 60_000_000, body: obj({ id: id().required(), name: need('Give it a name.', 120), data: need('Choose a file.', 55_000_000) }), answer: roads }),
  beginPlan: route({
    method: 'POST', path: '/day-plans', who: DESK, summary: 'Ask for a plan of one or several days; nothing changes before it is accepted',
    body: obj({ id: id().required(), dates: list(date().required()).min(1, 'Choose a day.').max(7, 'Not more than seven days.'), technicianIds: list(id().required()).default([]), keepTechnicians: flag().default(false), tray: flag().default(true), absentId: id().nullable().default(null), reason: text(160).default(''), seconds: int(1, 60).default(4) }), answer: dayPlan,
  }),
  dayPlan: route({ method: 'GET', path: '/day-plans/{id}', who: DESK, summary: 'How far a plan is, and what it proposes', answer: dayPlan }),
  stopPlan: route({ method: 'POST', path: '/day-plans/{id}/stop', who: DESK, summary: 'Stop planning, with the best so far', answer: dayPlan }),
  acceptPlan: route({ method: 'POST', path: '/day-plans/{id}/accept', who: DESK, summary: 'Accept all or some of the changes that a plan proposes', body: obj({ visitIds: list(id().required()).min(1, 'Choose what to accept.') }), answer: obj({ plan: dayPlan, undo: list(obj({ visitId: id().required(), version: int().required(), technicianId: id().nullable().defined(), startAt: instant().nullable().defined(), durationSeconds: int().required() })) }) }),
  openings: route({
    method: 'POST', path: '/openings', who: DESK, summary: 'Times at which a visit can be placed in the next days, ranked, each with its reasons',
    body: obj({ siteId: id().nullable().default(null), customerId: id().nullable().default(null), callId: id().nullable().default(null), visitId: id().nullable().default(null), durationSeconds: int(300, 86_400).required('Say how long it takes.'), skills: list(text(60).defined()).default([]), part: oneOf(PARTS).default('any'), order: oneOf(ORDERS).default('best'), from: date().nullable().default(null), days: int(1, 60).default(14), technicianId: id().nullable().default(null), territory: text(80).default(''), windowFrom: time().nullable().default(null), windowTo: time().nullable().default(null), limit: int(1, 50).default(8) }),
    answer: obj({ items: list(opening), total: int().required(), placeKnown: flag().required(), territory: words() }),
  }),
  schedule: route({ method: 'GET', path: '/schedule', who: INDOORS, summary: 'The schedule of a day', query: obj({ date: date() }), answer: schedule }),
  checkPlacement: route({ method: 'POST', path: '/placements/check', who: DESK, summary: 'What would be wrong with a time, before it is saved', body: obj({ visitId: id().nullable().default(null), technicianId: id().required(), startAt: instant().required(), durationSeconds: int(300, 86_400).required(), promiseFrom: text(5).default(''), promiseTo: text(5).default(''), siteId: id().nullable().default(null), skills: list(text(60).defined()).default([]) }), answer: obj({ warnings: list(warning) }) }),
  placeVisit: route({ method: 'POST', path: '/visits/{id}/place', who: DESK, summary: 'Place, move, stretch or take back a visit', body: obj({ technicianId: id().nullable().defined(), startAt: instant().nullable().defined(), durationSeconds: int(300, 86_400).required(), version: version(), override: flag().default(false) }), answer: scheduleVisit }),
  swapVisits: route({ method: 'POST', path: '/visits/swap', who: DESK, summary: 'Two visits change places: technician and start', body: obj({ first: obj({ id: id().required(), version: version() }), second: obj({ id: id().required(), version: version() }) }), answer: obj({ visits: list(scheduleVisit) }) }),
  visitNotice: route({ method: 'GET', path: '/visits/{id}/notice', who: DESK, summary: 'What would be said to a customer about a visit, and how they can be reached', answer: obj({ visitId: id().required(), customer: words(), phone: words(), to: list(words()), mails: flag().required(), late: flag().required(), subject: words(), body: words(4000) }) }),
  tellCustomer: route({ method: 'POST', path: '/visits/{id}/tell', who: DESK, summary: 'Tell a customer about a visit by mail, or note that they were rung', body: obj({ to: list(mail().required()).max(4).default([]), subject: text(200).default(''), body: text(4000).default(''), spoken: text(200).default('') }), answer: ok }),
  live: route({ method: 'GET', path: '/live', who: ALL, summary: 'Live changes (server-sent events), resumable with Last-Event-ID', mime: 'text/event-stream' }),
}
