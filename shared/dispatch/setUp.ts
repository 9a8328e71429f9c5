// What scheduling needs: people with their hours, territories, time off, meetings, holidays, calendars.
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
  version,
  definedText,
} from '../schema'
import { place } from './map'

export const VISIT_MESSAGES = ['confirmation', 'eve', 'onWay'] as const
/** All that the firm has its own words for. */
export const VISIT_WORDS = [...VISIT_MESSAGES, 'late', 'moved', 'later', 'off'] as const
const said = () => text(600).required('Write what is said.')
const visitMessages = obj({
  confirmation: flag().required(),
  eve: flag().required(),
  onWay: flag().required(),
  words: obj({
    confirmation: said(),
    eve: said(),
    onWay: said(),
    late: said(),
    moved: said(),
    later: said(),
    off: said(),
  }),
})
const hours = obj({
  weekday: int(1, 7).required(),
  from: time().required('Say when the day begins.'),
  to: time().required('Say when the day ends.'),
  morning: int(0, 20).required(),
  afternoon: int(0, 20).required(),
  breakFrom: text(5).default(''),
  breakTo: text(5).default(''),
})
const licence = obj({
  skill: text(60).min(1).defined(),
  until: date().required('Say until when it is valid.'),
})
const territory = obj({ name: definedText(), postcodes: list(definedText()) })
/** How somebody belongs to the firm; a crew is several people who are booked as one. */
export const PERSON_KINDS = ['employee', 'subcontractor', 'apprentice', 'crew'] as const
const employment = {
  kind: oneOf(PERSON_KINDS),
  goesWith: id().nullable(),
  startsAt: oneOf(['home', 'yard'] as const),
  endsAt: oneOf(['home', 'yard'] as const),
}
const technician = obj({
  id: id().required(),
  version: int().required(),
  name: definedText(),
  skills: list(definedText()),
  licences: list(licence),
  territoryIds: list(id().required()),
  hours: list(hours),
  placeKnown: flag().required(),
  kind: definedText(),
  goesWith: id().nullable().defined(),
  startsAt: definedText(),
  endsAt: definedText(),
  home: place.nullable().default(undefined),
  off: list(
    obj({
      id: id().required(),
      from: instant().required(),
      to: instant().required(),
      reason: definedText(),
    }),
  ),
  entries: list(
    obj({
      id: id().required(),
      from: instant().required(),
      to: instant().required(),
      title: definedText(),
    }),
  ),
  calendar: flag().required(),
})
export const holiday = obj({ date: date().required(), name: definedText() })
export const scheduleSetUp = obj({
  /** from then on, what was planned for the day and not begun waits for another time */
  closesAt: definedText(),
  drivesOutside: flag().required(),
  technicians: list(technician),
  territories: list(
    obj({
      id: id().required(),
      name: definedText(),
      postcodes: list(definedText()),
      people: list(definedText()),
      sites: int().required(),
      morning: int().required(),
      afternoon: int().required(),
    }),
  ),
  holidays: list(holiday),
  sitesNowhere: int().required(),
  roads: definedText(),
  /** latitude and longitude; nothing where nobody said */
  yard: definedText(),
  messages: visitMessages,
  guide: list(
    obj({
      code: definedText(),
      done: flag().required(),
      text: definedText(300),
      where: definedText(),
    }),
  ),
})

export const setUpRoutes = {
  scheduleSetUp: route({
    method: 'GET',
    path: '/schedule-set-up',
    may: 'dispatch.plan',
    summary: 'Hours, time off, territories and roads; and what is still missing for scheduling',
    answer: scheduleSetUp,
  }),
  changeTechnician: route({
    method: 'PATCH',
    path: '/technicians/{id}',
    may: 'dispatch.setUp',
    summary: 'Weekly hours with capacity, skills and territories of a technician',
    body: obj({
      version: version(),
      hours: list(hours).max(7),
      skills: list(text(60).min(1).defined()).max(30),
      licences: list(licence).max(30).default([]),
      territoryIds: list(id().required()).max(50),
      ...employment,
      home: place.nullable().default(undefined),
      homePostcode: text(80).default(''),
    }),
    answer: scheduleSetUp,
  }),
  importTerritories: route({
    method: 'POST',
    path: '/territories/import',
    may: 'dispatch.setUp',
    summary: 'Territories from a CSV with a territory and a postcode in each row; a dry run first',
    maxBytes: 2_000_000,
    body: obj({ data: requiredText('Choose a file.', 1_900_000), dryRun: flag().default(true) }),
    answer: obj({
      territories: list(
        obj({
          name: definedText(),
          postcodes: int().required(),
          added: int().required(),
          dropped: int().required(),
        }),
      ),
      errors: list(obj({ line: int().required(), message: definedText(300) })),
      kept: flag().required(),
    }),
  }),
  exportTerritories: route({
    method: 'GET',
    path: '/export/territories.csv',
    may: 'dispatch.plan',
    summary: 'Territories and their postcodes as CSV',
    mime: 'text/csv',
  }),
  keepVisitMessages: route({
    method: 'POST',
    path: '/visit-messages',
    may: 'dispatch.setUp',
    summary: 'Which messages customers get about visits, and their words',
    // `shown`: as they stood where they were changed.
    body: visitMessages.shape({ shown: visitMessages }),
    answer: scheduleSetUp,
  }),
  keepClosing: route({
    method: 'POST',
    path: '/schedule/closing',
    may: 'dispatch.setUp',
    summary: 'From which hour on what was not begun waits for another time',
    body: obj({ at: time().required('Say at what hour.') }),
    answer: scheduleSetUp,
  }),
  keepYard: route({
    method: 'POST',
    path: '/yard',
    may: 'dispatch.setUp',
    summary: 'Where the yard is: latitude and longitude, or a postcode',
    body: obj({ at: text(80).default(''), shown: text(80).defined() }),
    answer: scheduleSetUp,
  }),
  keepDrives: route({
    method: 'POST',
    path: '/schedule-drives',
    may: 'dispatch.setUp',
    summary: 'Whether the drive to the first visit and the one home lie outside the hours',
    body: obj({ outside: flag().required('Say whether drives are working time.') }),
    answer: scheduleSetUp,
  }),
  addTimeOff: route({
    method: 'POST',
    path: '/time-off',
    may: 'dispatch.plan',
    summary: 'Time off with its reason',
    body: obj({
      id: id().required(),
      personId: id().required('Say who is off.'),
      from: date().required('Say from when.'),
      fromTime: time().nullable().default(null),
      to: date().required('Say until when.'),
      toTime: time().nullable().default(null),
      reason: requiredText('Say why.', 160),
    }),
    answer: scheduleSetUp,
  }),
  removeTimeOff: route({
    method: 'POST',
    path: '/time-off/{id}/remove',
    may: 'dispatch.plan',
    summary: 'Take time off back',
    answer: scheduleSetUp,
  }),
  addEntry: route({
    method: 'POST',
    path: '/day-entries',
    may: 'dispatch.plan',
    summary: 'An entry that is no visit: a meeting, a training',
    body: obj({
      id: id().required(),
      personId: id().required('Say for whom.'),
      date: date().required('Say on which day.'),
      from: time().required('Say from when.'),
      to: time().required('Say until when.'),
      title: requiredText('Say what it is.', 120),
    }),
    answer: scheduleSetUp,
  }),
  removeEntry: route({
    method: 'POST',
    path: '/day-entries/{id}/remove',
    may: 'dispatch.plan',
    summary: 'Take an entry back',
    answer: scheduleSetUp,
  }),
  keepTerritory: route({
    method: 'POST',
    path: '/territories',
    may: 'dispatch.setUp',
    summary: 'Add or change a territory: its name and postcodes, single ones and ranges',
    body: obj({
      id: id().required(),
      name: requiredText('Name the territory.', 80),
      postcodes: requiredText('Write its postcodes.', 4000),
      /** as it stood when its form was opened; nothing where it is new */
      shown: territory.nullable().default(null),
    }),
    answer: scheduleSetUp,
  }),
  dropTerritory: route({
    method: 'POST',
    path: '/territories/{id}/remove',
    may: 'dispatch.setUp',
    summary: 'Take a territory away that nobody serves',
    body: obj({ shown: territory }),
    answer: scheduleSetUp,
  }),
  newCalendar: route({
    secret: true,
    method: 'POST',
    path: '/technicians/{id}/calendar',
    may: 'dispatch.further',
    summary: 'A private calendar feed for a technician; the link before it ends',
    answer: obj({ url: definedText(300) }),
  }),
  calendar: route({
    method: 'GET',
    path: '/public/calendars/{token}.ics',
    who: 'public',
    summary: 'A technician’s visits as a calendar (RFC 5545), by private link',
    mime: 'text/calendar',
  }),
}
