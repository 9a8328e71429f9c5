// Where a visit fits, and how a day is best run.
import {
  date,
  flag,
  id,
  instant,
  int,
  list,
  requiredText,
  obj,
  oneOf,
  route,
  text,
  time,
  definedText,
} from '../schema'

export const PARTS = ['any', 'morning', 'afternoon'] as const
export const ORDERS = ['best', 'first', 'cheapest', 'known'] as const
export const opening = obj({
  technicianId: id().required(),
  technician: definedText(),
  date: date().required(),
  startAt: instant().required(),
  promiseFrom: time().required(),
  promiseTo: time().required(),
  extraDriveSeconds: int().required(),
  dayEndAt: instant().required(),
  overtimeSeconds: int().required(),
  sound: flag().required(),
  score: int().required(),
  reasons: list(obj({ code: definedText(), text: definedText(300) })),
  moves: list(
    obj({ visitId: id().required(), customer: definedText(), startAt: instant().required() }),
  ),
})
const facts = () =>
  obj({
    broken: int().required(),
    unserved: int().required(),
    overtimeSeconds: int().required(),
    drivingSeconds: int().required(),
    total: int().required(),
  })
const spot = () =>
  obj({
    technicianId: id().nullable().defined(),
    technician: definedText(),
    startAt: instant().nullable().defined(),
  })
export const dayPlan = obj({
  id: id().required(),
  state: oneOf(['running', 'ready', 'accepted', 'stopped', 'failed'] as const).required(),
  progress: int().required(),
  problem: definedText(),
  askedAt: instant().required(),
  dates: list(date().required()),
  absent: definedText(),
  before: facts().nullable().default(undefined),
  after: facts().nullable().default(undefined),
  changes: list(
    obj({
      visitId: id().required(),
      version: int().required(),
      durationSeconds: int().required(),
      number: definedText(),
      title: definedText(),
      customer: definedText(),
      promise: definedText(),
      kept: flag().required(),
      from: spot(),
      to: spot(),
      why: definedText(300),
    }),
  ),
})
const roads = obj({
  network: obj({
    name: definedText(),
    lines: int().required(),
    positions: int().required(),
    parts: int().required(),
    importedAt: instant().required(),
  })
    .nullable()
    .defined(),
})

export const planningRoutes = {
  roads: route({
    method: 'GET',
    path: '/roads',
    may: 'dispatch.plan',
    summary: 'The road network in use',
    answer: roads,
  }),
  importRoads: route({
    method: 'POST',
    path: '/roads',
    may: 'dispatch.setUp',
    summary: 'Take another road network: GeoJSON lines (RFC 7946) with speeds',
    maxBytes: 60_000_000,
    body: obj({
      id: id().required(),
      name: requiredText('Give it a name.', 120),
      data: requiredText('Choose a file.', 55_000_000),
    }),
    answer: roads,
  }),
  beginPlan: route({
    method: 'POST',
    path: '/day-plans',
    may: 'dispatch.plan',
    summary: 'Ask for a plan of one or several days; nothing changes before it is accepted',
    body: obj({
      id: id().required(),
      dates: list(date().required()).min(1, 'Choose a day.').max(7, 'Not more than seven days.'),
      technicianIds: list(id().required()).default([]),
      keepTechnicians: flag().default(false),
      tray: flag().default(true),
      absentId: id().nullable().default(null),
      reason: text(160).default(''),
      seconds: int(1, 60).default(4),
    }),
    answer: dayPlan,
  }),
  dayPlan: route({
    method: 'GET',
    path: '/day-plans/{id}',
    may: 'dispatch.plan',
    summary: 'How far a plan is, and what it proposes',
    answer: dayPlan,
  }),
  stopPlan: route({
    method: 'POST',
    path: '/day-plans/{id}/stop',
    may: 'dispatch.plan',
    summary: 'Stop planning, with the best so far',
    answer: dayPlan,
  }),
  acceptPlan: route({
    method: 'POST',
    path: '/day-plans/{id}/accept',
    may: 'dispatch.plan',
    summary: 'Accept all or some of the changes that a plan proposes',
    body: obj({ visitIds: list(id().required()).min(1, 'Choose what to accept.') }),
    answer: obj({
      plan: dayPlan,
      undo: list(
        obj({
          visitId: id().required(),
          version: int().required(),
          technicianId: id().nullable().defined(),
          startAt: instant().nullable().defined(),
          durationSeconds: int().required(),
        }),
      ),
    }),
  }),
  openings: route({
    method: 'POST',
    path: '/openings',
    may: 'dispatch.plan',
    summary: 'Times at which a visit can be placed in the next days, ranked, each with its reasons',
    body: obj({
      siteId: id().nullable().default(null),
      customerId: id().nullable().default(null),
      callId: id().nullable().default(null),
      visitId: id().nullable().default(null),
      durationSeconds: int(300, 86_400).required('Say how long it takes.'),
      skills: list(text(60).defined()).default([]),
      part: oneOf(PARTS).default('any'),
      order: oneOf(ORDERS).default('best'),
      from: date().nullable().default(null),
      days: int(1, 60).default(14),
      technicianId: id().nullable().default(null),
      territory: text(80).default(''),
      servedBy: text(80).default(''),
      mayMove: flag().default(false),
      windowFrom: time().nullable().default(null),
      windowTo: time().nullable().default(null),
      limit: int(1, 50).default(8),
    }),
    answer: obj({
      items: list(opening),
      total: int().required(),
      placeKnown: flag().required(),
      territory: definedText(),
    }),
  }),
}
