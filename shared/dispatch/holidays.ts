// Days on which nobody works: those that a firm keeps, and those that the law has, to choose from.
import { date, definedText, list, obj, route, text } from '../schema'
import { holiday, scheduleSetUp } from './setUp'

export const holidayRoutes = {
  publicHolidays: route({
    method: 'GET',
    path: '/holidays/public',
    may: 'dispatch.setUp',
    summary: 'Public holidays of the country, or of a state of it, that the firm does not have yet',
    query: obj({ state: text(8).default('') }),
    answer: obj({
      items: list(holiday),
      states: list(obj({ code: definedText(), name: definedText() })),
    }),
  }),
  keepHoliday: route({
    method: 'POST',
    path: '/holidays',
    may: 'dispatch.setUp',
    summary: 'A day on which nobody works; without a name it is taken back',
    body: obj({
      date: date().required('Say which day.'),
      name: text(80).default(''),
      /** what it was called where it was kept or taken back */
      shown: text(80).default(''),
    }),
    answer: scheduleSetUp,
  }),
}
