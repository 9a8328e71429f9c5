// The schedule of a day: technicians down, visits with promise and drive, time off, and the tray of what has no slot.
import { number } from 'yup'
import { ALL, date, DESK, flag, id, INDOORS, instant, int, list, mail, need, obj, OFFICE, ok, oneOf, route, text, time, timeOrNone, version, words } from './schema'

const degrees = () => number().nullable().defined()
export const scheduleVisit = obj({
  id: id().required(), version: int().required(), workOrderId: id().required(), number: words(), title: words(), customer: words(), place: words(400), town: words(),
  technicianId: id().nullable().defined(), startAt: instant().nullable().defined(), durationSeconds: int().required(), state: words(), kind: words(),
  promiseDate: date().nullable().defined(), promiseFrom: time().nullable().defined(), promiseTo: time().nullable().defined(), promiseStart: instant().nullable().defined(), promiseEnd: instant().nullable().defined(),
  driveSeconds: int().required(), arriveAt: instant().nullable().defined(), finishAt: instant().nullable().defined(), atRisk: flag().required(), lateSeconds: int().required(), net: words(), waiting: words(200),
  siteId: id().required(), locked: flag().required(), note: words(), crewIds: list(id().required()), alongIds: list(id().required()), contact: words(300), accessNote: words(400), officeNote: words(2000), quote: words(), territory: words(), skills: list(words()), misfit: words(400), lat: degrees(), lon: degrees(),
})
export const schedule = obj({
  date: date().required(), holiday: words(), now: instant().required(), dayStart: instant().required(), dayEnd: instant().required(),
  technicians: list(obj({ id: id().required(), name: words(), kind: words(), goesWith: id().nullable().defined(), skills: list(words()), territories: list(words()), working: list(obj({ from: instant().required(), to: instant().required() })), timeOff: list(obj({ from: instant().required(), to: instant().required(), reason: words(), kind: words() })), homeAt: instant().nullable().defined(), homeDriveSeconds: int().required() })),
  visits: list(scheduleVisit), held: list(obj({ callId: id().required(), technicianId: id().required(), startAt: instant().required(), durationSeconds: int().required(), summary: words(), missing: words() })), tray: list(scheduleVisit),
  week: list(obj({ date: date().required(), morning: int().required(), afternoon: int().required(), capacityMorning: int().required(), capacityAfternoon: int().required() })),
  driveSeconds: int().required(), atRisk: int().required(),
})
export const scheduleFilter = obj({ technicianIds: list(id().required()).max(200).default([]), territory: text(80).default(''), skill: text(60).default(''), state: text(20).default(''), kind: text(40).default('') })
const scheduleRange = obj({
  days: list(obj({ date: date().required(), holiday: words() })), technicians: list(obj({ id: id().required(), name: words(), kind: words(), skills: list(words()), territories: list(words()) })),
  cells: list(obj({ technicianId: id().required(), date: date().required(), morning: int().required(), afternoon: int().required(), capacityMorning: int().required(), capacityAfternoon: int().required(), away: words(400), works: flag().required() })),
  visits: list(scheduleVisit), tray: list(scheduleVisit),
})
const lookList = obj({ items: list(obj({ id: id().required(), name: words(), filter: scheduleFilter })) })
const place = obj({ lat: number().min(-90).max(90).required(), lon: number().min(-180).max(180).required() })
const mapDay = obj({
  date: date().required(), roadsId: id().nullable().defined(), territories: list(obj({ id: id().required(), name: words(), people: list(words()) })),
  sites: list(obj({ id: id().required(), customerId: id().required(), customer: words(), place: words(300), territoryId: id().nullable().defined(), lat: number().required(), lon: number().required() })),
  technicians: list(obj({
    id: id().required(), name: words(), start: place.nullable().default(undefined), end: place.nullable().default(undefined), position: obj({ lat: number().required(), lon: number().required(), at: instant().required(), old: flag().required() }).nullable().default(undefined),
    stops: list(obj({ visitId: id().required(), lat: number().required(), lon: number().required(), state: words(), atRisk: flag().required() })), route: list(list(number().required())),
  })),
  waiting: list(obj({ visitId: id().required(), siteId: id().required(), title: words(), customer: words(), lat: number().required(), lon: number().required() })), nowhere: int().required(),
})
const nearby = obj({ items: list(obj({ technicianId: id().required(), name: words(), driveSeconds: int().required(), from: words(200), freeAt: instant().required(), arriveAt: instant().required(), works: flag().required(), lacks: list(words()), foreign: flag().required(), now: words(300) })) })
export const VISIT_MESSAGES = ['confirmation', 'eve', 'onWay'] as const
const visitMessages = obj({ confirmation: flag().required(), eve: flag().required(), onWay: flag().required(), words: obj({ confirmation: text(600).required('Write what is said.'), eve: text(600).required('Write what is said.'), onWay: text(600).required('Write what is said.'), late: text(600).required('Write what is said.') }) })
const reminders = obj({ date: date().required(), items: list(obj({ visitId: id().required(), customer: words(), when: words(), channel: oneOf(['mail', 'text', 'none'] as const).required(), to: words(400), body: words(1000), told: flag().required() })) })
export const PARTS = ['any', 'morning', 'afternoon'] as const
export const ORDERS = ['best', 'first', 'cheapest', 'known'] as const
export const opening = obj({
  technicianId: id().required(), technician: words(), date: date().required(), startAt: instant().required(), promiseFrom: time().required(), promiseTo: time().required(), extraDriveSeconds: int().required(), dayEndAt: instant().required(), overtimeSeconds: int().required(),
  sound: flag().required(), score: int().required(), reasons: list(obj({ code: words(), text: words(300) })), moves: list(obj({ visitId: id().required(), customer: words(), startAt: instant().required() })),
})
const facts = () => obj({ broken: int().required(), unserved: int().required(), overtimeSeconds: int().required(), drivingSeconds: int().required(), total: int().required() })
const spot = () => obj({ technicianId: id().nullable().defined(), technician: words(), startAt: instant().nullable().defined() })
export const dayPlan = obj({
  id: id().required(), state: oneOf(['running', 'ready', 'accepted', 'stopped', 'failed'] as const).required(), progress: int().required(), problem: words(), askedAt: instant().required(), dates: list(date().required()), absent: words(),
  before: facts().nullable().default(undefined), after: facts().nullable().default(undefined),
  changes: list(obj({ visitId: id().required(), version: int().required(), durationSeconds: int().required(), number: words(), title: words(), customer: words(), promise: words(), kept: flag().required(), from: spot(), to: spot(), why: words(300) })),
})
const roads = obj({ network: obj({ name: words(), lines: int().required(), positions: int().required(), parts: int().required(), importedAt: instant().required() }).nullable().defined() })
const hours = obj({ weekday: int(1, 7).required(), from: time().required('Say when the day begins.'), to: time().required('Say when the day ends.'), morning: int(0, 20).required(), afternoon: int(0, 20).required(), breakFrom: text(5).default(''), breakTo: text(5).default('') })
const licence = obj({ skill: text(60).min(1).defined(), until: date().required('Say until when it is valid.') })
const employment = { kind: oneOf(['employee', 'subcontractor', 'apprentice'] as const), goesWith: id().nullable(), startsAt: oneOf(['home', 'yard'] as const), endsAt: oneOf(['home', 'yard'] as const) }
const technician = obj({
  id: id().required(), version: int().required(), name: words(), skills: list(words()), licences: list(licence), territoryIds: list(id().required()), hours: list(hours), placeKnown: flag().required(), kind: words(), goesWith: id().nullable().defined(), startsAt: words(), endsAt: words(), home: place.nullable().default(undefined), 
  off: list(obj({ id: id().required(), from: instant().required(), to: instant().required(), reason: words() })), entries: list(obj({ id: id().required(), from: instant().required(), to: instant().required(), title: words() })), calendar: flag().required(),
})
export const scheduleSetUp = obj({
  drivesOutside: flag().required(),
  technicians: list(technician), territories: list(obj({ id: id().required(), name: words(), postcodes: list(words()), people: list(words()), sites: int().required(), morning: int().required(), afternoon: int().required() })), holidays: list(obj({ date: date().required(), name: words() })), sitesNowhere: int().required(), roads: words(), yardKnown: flag().required(), messages: visitMessages,
  guide: list(obj({ code: words(), done: flag().required(), text: words(300), where: words() })),
})
const warning = obj({ code: words(), text: words(300) })
export const dispatchRoutes = {
  scheduleSetUp: route({ method: 'GET', path: '/schedule-set-up', who: DESK, summary: 'Hours, time off, territories and roads; and what is still missing for scheduling', answer: scheduleSetUp }),
  changeTechnician: route({ method: 'PATCH', path: '/technicians/{id}', who: OFFICE, summary: 'Weekly hours with capacity, skills and territories of a technician', body: obj({ version: version(), hours: list(hours).max(7), skills: list(text(60).min(1).defined()).max(30), licences: list(licence).max(30).default([]), territoryIds: list(id().required()).max(50), ...employment, home: place.nullable().default(undefined), homePostcode: text(16).default('') }), answer: scheduleSetUp }),
  importTerritories: route({ method: 'POST', path: '/territories/import', who: OFFICE, summary: 'Territories from a CSV with a territory and a postcode in each row; a dry run first', maxBytes: 2_000_000, body: obj({ data: need('Choose a file.', 1_900_000), dryRun: flag().default(true) }), answer: obj({ territories: list(obj({ name: words(), postcodes: int().required(), added: int().required(), dropped: int().required() })), errors: list(obj({ line: int().required(), message: words(300) })), kept: flag().required() }) }),
  exportTerritories: route({ method: 'GET', path: '/export/territories.csv', who: DESK, summary: 'Territories and their postcodes as CSV', mime: 'text/csv' }),
  keepVisitMessages: route({ method: 'POST', path: '/visit-messages', who: OFFICE, summary: 'Which messages customers get about visits, and their words', body: visitMessages, answer: scheduleSetUp }),
  keepDrives: route({ method: 'POST', path: '/schedule-drives', who: OFFICE, summary: 'Whether the drive to the first visit and the one home lie outside the hours', body: obj({ outside: flag().required('Say whether drives are working time.') }), answer: scheduleSetUp }),
  addTimeOff: route({ method: 'POST', path: '/time-off', who: DESK, summary: 'Time off with its reason', body: obj({ id: id().required(), personId: id().required('Say who is off.'), from: date().required('Say from when.'), fromTime: time().nullable().default(null), to: date().required('Say until when.'), toTime: time().nullable().default(null), reason: need('Say why.', 160) }), answer: scheduleSetUp }),
  removeTimeOff: route({ method: 'POST', path: '/time-off/{id}/remove', who: DESK, summary: 'Take time off back', answer: scheduleSetUp }),
  addEntry: route({ method: 'POST', path: '/day-entries', who: DESK, summary: 'An entry that is no visit: a meeting, a training', body: obj({ id: id().required(), personId: id().required('Say for whom.'), date: date().required('Say on which day.'), from: time().required('Say from when.'), to: time().required('Say until when.'), title: need('Say what it is.', 120) }), answer: scheduleSetUp }),
  removeEntry: route({ method: 'POST', path: '/day-entries/{id}/remove', who: DESK, summary: 'Take an entry back', answer: scheduleSetUp }),
  keepTerritory: route({ method: 'POST', path: '/territories', who: OFFICE, summary: 'Add or change a territory: its name and postcodes, single ones and ranges', body: obj({ id: id().required(), name: need('Name the territory.', 80), postcodes: need('Write its postcodes.', 4000) }), answer: scheduleSetUp }),
  keepHoliday: route({ method: 'POST', path: '/holidays', who: OFFICE, summary: 'A day on which nobody works; without a name it is taken back', body: obj({ date: date().required('Say which day.'), name: text(80).default('') }), answer: scheduleSetUp }),
  newCalendar: route({ secret: true, method: 'POST', path: '/technicians/{id}/calendar', who: [...DESK, 'technician'], summary: 'A private calendar feed for a technician; the link before it ends', answer: obj({ url: words(300) }) }),
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
    body: obj({ siteId: id().nullable().default(null), customerId: id().nullable().default(null), callId: id().nullable().default(null), visitId: id().nullable().default(null), durationSeconds: int(300, 86_400).required('Say how long it takes.'), skills: list(text(60).defined()).default([]), part: oneOf(PARTS).default('any'), order: oneOf(ORDERS).default('best'), from: date().nullable().default(null), days: int(1, 60).default(14), technicianId: id().nullable().default(null), territory: text(80).default(''), servedBy: text(80).default(''), mayMove: flag().default(false), windowFrom: time().nullable().default(null), windowTo: time().nullable().default(null), limit: int(1, 50).default(8) }),
    answer: obj({ items: list(opening), total: int().required(), placeKnown: flag().required(), territory: words() }),
  }),
  schedule: route({ method: 'GET', path: '/schedule', shared: true, who: INDOORS, summary: 'The schedule of a day', query: obj({ date: date() }), answer: schedule }),
  checkPlacement: route({ method: 'POST', path: '/placements/check', who: DESK, summary: 'What would be wrong with a time, before it is saved', body: obj({ visitId: id().nullable().default(null), technicianId: id().required(), crewIds: list(id().required()).max(20).default([]), startAt: instant().required(), durationSeconds: int(300, 86_400).required(), promiseFrom: timeOrNone(), promiseTo: timeOrNone(), siteId: id().nullable().default(null), skills: list(text(60).defined()).default([]) }), answer: obj({ warnings: list(warning) }) }),
  placeVisit: route({ method: 'POST', path: '/visits/{id}/place', who: DESK, summary: 'Place, move, stretch or take back a visit', body: obj({ technicianId: id().nullable().defined(), startAt: instant().nullable().defined(), durationSeconds: int(300, 86_400).required(), crewIds: list(id().required()).max(20).default(undefined).optional(), version: version(), override: flag().default(false) }), answer: scheduleVisit }),
  swapVisits: route({ method: 'POST', path: '/visits/swap', who: DESK, summary: 'Two visits change places: technician and start', body: obj({ first: obj({ id: id().required(), version: version() }), second: obj({ id: id().required(), version: version() }) }), answer: obj({ visits: list(scheduleVisit) }) }),
  scheduleRange: route({ method: 'GET', path: '/schedule/range', shared: true, who: INDOORS, summary: 'Some days of the schedule: visits, load and capacity by technician', query: obj({ from: date(), to: date() }), answer: scheduleRange }),
  looks: route({ method: 'GET', path: '/looks', who: INDOORS, summary: 'My kept filters of the schedule', answer: lookList }),
  keepLook: route({ method: 'POST', path: '/looks', who: INDOORS, summary: 'Keep a filter of the schedule by name, for myself', body: obj({ id: id().required(), name: need('Give it a name.', 60), filter: scheduleFilter }), answer: lookList }),
  dropLook: route({ method: 'POST', path: '/looks/{id}/remove', who: INDOORS, summary: 'Take a kept filter away', answer: lookList }),
  lockVisit: route({ method: 'POST', path: '/visits/{id}/lock', who: DESK, summary: 'Lock a visit where it is, or unlock it', body: obj({ version: version(), locked: flag().required() }), answer: scheduleVisit }),
  furtherVisit: route({ method: 'POST', path: '/visits/{id}/further', who: [...DESK, 'technician'], summary: 'A further visit of the same work order: a copy, or the rest of a visit that is split', body: obj({ id: id().required(), version: version(), split: flag().default(false), durationSeconds: int(900, 86_400).required(), technicianId: id().nullable().default(null), startAt: instant().nullable().default(null), note: text(200).default(''), override: flag().default(false) }), answer: obj({ visit: scheduleVisit, of: scheduleVisit }) }),
  cancelVisit: route({ method: 'POST', path: '/visits/{id}/cancel', who: DESK, summary: 'Cancel a visit that has not begun, or bring it back', body: obj({ version: version(), cancelled: flag().required(), reason: text(200).default(''), /** bring it back although its time was given away */ override: flag().default(false) }), answer: scheduleVisit }),
  inviteToVisit: route({ method: 'POST', path: '/visits/{id}/invitation', who: DESK, summary: 'Send a visit as an invitation to a calendar (RFC 5545, RFC 5546)', body: obj({ to: list(mail().required()).min(1, 'Write to whom it goes.').max(4) }), answer: ok }),
  workSheet: route({ method: 'GET', path: '/visits/{id}/work-sheet.pdf', who: ALL, summary: 'What is to be done on a visit, on paper', mime: 'application/pdf' }),
  daySheets: route({ method: 'GET', path: '/schedule/{date}/day-sheets.pdf', who: ALL, summary: 'The day of a technician, or of everybody, on paper', query: obj({ technician: id() }), mime: 'application/pdf' }),
  mapDay: route({ method: 'GET', path: '/map', who: INDOORS, summary: 'Sites, territories, routes of a day along the roads, and where technicians are', query: obj({ date: date() }), answer: mapDay }),
  mapGround: route({ method: 'GET', path: '/map/ground.geojson', who: INDOORS, summary: 'The ground of the map: roads, waters and towns (RFC 7946)', mime: 'application/geo+json' }),
  nearest: route({ method: 'POST', path: '/nearest', who: DESK, summary: 'Who could be at a site soonest, by drive time from where each is', body: obj({ siteId: id().required(), skills: list(text(60).defined()).default([]) }), answer: nearby }),
  positionTrips: route({ method: 'POST', path: '/positions/trips', who: 'signature', signedBy: 'POSITIONS', summary: 'For the positions device: where each technician drives at present, along the roads', answer: obj({ now: instant().required(), trips: list(obj({ personId: id().required(), from: instant().required(), to: instant().required(), line: list(list(number().required())) })) }) }),
  positions: route({ method: 'POST', path: '/positions', who: 'signature', signedBy: 'POSITIONS', summary: 'Where technicians are, told by the positions device', body: obj({ positions: list(obj({ personId: id().required(), at: instant().required(), lat: number().min(-90).max(90).required(), lon: number().min(-180).max(180).required() })).max(500) }), answer: ok }),
  reminders: route({ method: 'GET', path: '/visit-messages/{date}', who: DESK, summary: 'Who would be reminded of a visit on that day, how, and in which words', answer: reminders }),
  sendReminders: route({ method: 'POST', path: '/visit-messages/{date}', who: DESK, summary: 'Remind the customers of that day, each once', answer: reminders }),
  textIn: route({ method: 'POST', path: '/webhooks/text', who: 'signature', signedBy: 'TEXT', summary: 'A text that came in; STOP ends texts to that number', body: obj({ from: need('Say from whom.', 32), text: text(1000).default('') }), answer: ok }),
  visitNotice: route({ method: 'GET', path: '/visits/{id}/notice', who: DESK, summary: 'What would be said to a customer about a visit, and how they can be reached', answer: obj({ visitId: id().required(), customer: words(), phone: words(), to: list(words()), mails: flag().required(), texts: flag().required(), late: flag().required(), subject: words(), body: words(4000), text: words(600) }) }),
  tellCustomer: route({ method: 'POST', path: '/visits/{id}/tell', who: DESK, summary: 'Tell a customer about a visit by mail or text, or note that they were rung', body: obj({ channel: oneOf(['mail', 'text'] as const).default('mail'), to: list(text(160).required()).max(4).default([]), subject: text(200).default(''), body: text(4000).default(''), spoken: text(200).default('') }), answer: ok }),
  live: route({ method: 'GET', path: '/live', who: ALL, summary: 'Live changes (server-sent events), resumable with Last-Event-ID', mime: 'text/event-stream' }),
}
