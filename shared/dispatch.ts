// The schedule of a day: technicians down, visits with promise and drive, time off, and the tray of what has no slot.
import { ALL, DESK, INDOORS, date, flag, id, instant, int, list, obj, oneOf, route, text, time, version, words } from './schema'

export const scheduleVisit = obj({
  id: id().required(), version: int().required(), workOrderId: id().required(), number: words(), title: words(), customer: words(), place: words(400), town: words(),
  technicianId: id().nullable().defined(), startAt: instant().nullable().defined(), durationSeconds: int().required(), state: words(), kind: words(),
  promiseDate: date().nullable().defined(), promiseFrom: time().nullable().defined(), promiseTo: time().nullable().defined(), promiseStart: instant().nullable().defined(), promiseEnd: instant().nullable().defined(),
  driveSeconds: int().required(), arriveAt: instant().nullable().defined(), finishAt: instant().nullable().defined(), atRisk: flag().required(), lateSeconds: int().required(), net: words(), waiting: words(200),
})
export const schedule = obj({
  date: date().required(), now: instant().required(), dayStart: instant().required(), dayEnd: instant().required(),
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
const warning = obj({ code: words(), text: words(300) })
export const dispatchRoutes = {
  openings: route({
    method: 'POST', path: '/openings', who: DESK, summary: 'Times at which a visit can be placed in the next days, ranked, each with its reasons',
    body: obj({ siteId: id().nullable().default(null), customerId: id().nullable().default(null), callId: id().nullable().default(null), visitId: id().nullable().default(null), durationSeconds: int(300, 86_400).required('Say how long it takes.'), skills: list(text(60).defined()).default([]), part: oneOf(PARTS).default('any'), order: oneOf(ORDERS).default('best'), from: date().nullable().default(null), days: int(1, 60).default(14), technicianId: id().nullable().default(null), territory: text(80).default(''), windowFrom: time().nullable().default(null), windowTo: time().nullable().default(null), limit: int(1, 50).default(8) }),
    answer: obj({ items: list(opening), total: int().required(), placeKnown: flag().required(), territory: words() }),
  }),
  schedule: route({ method: 'GET', path: '/schedule', who: INDOORS, summary: 'The schedule of a day', query: obj({ date: date() }), answer: schedule }),
  checkPlacement: route({ method: 'POST', path: '/placements/check', who: DESK, summary: 'What would be wrong with a time, before it is saved', body: obj({ visitId: id().nullable().default(null), technicianId: id().required(), startAt: instant().required(), durationSeconds: int(300, 86_400).required(), promiseFrom: text(5).default(''), promiseTo: text(5).default(''), siteId: id().nullable().default(null), skills: list(text(60).defined()).default([]) }), answer: obj({ warnings: list(warning) }) }),
  placeVisit: route({ method: 'POST', path: '/visits/{id}/place', who: DESK, summary: 'Place, move, stretch or take back a visit', body: obj({ technicianId: id().nullable().defined(), startAt: instant().nullable().defined(), durationSeconds: int(300, 86_400).required(), version: version(), override: flag().default(false) }), answer: scheduleVisit }),
  live: route({ method: 'GET', path: '/live', who: ALL, summary: 'Live changes (server-sent events), resumable with Last-Event-ID', mime: 'text/event-stream' }),
}
