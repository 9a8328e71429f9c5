// The routes of the schedule, bound to their service.
import { publicHolidays } from './publicHolidays'
import type { dispatchRoutes } from '../../shared/dispatch'
import { outside, type Handlers } from '../http/route'
import { acceptPlan, beginPlan, dayPlan, stopPlan } from './dayPlan'
import {
  addEntry,
  addTimeOff,
  changeTechnician,
  keepClosing,
  keepDrives,
  keepYard,
  takeEntryBack,
  takeTimeOffBack,
} from './setUp'
import { keepHoliday } from './holidays'
import { keepVisitMessages } from './messageSetUp'
import { scheduleSetUp } from './setUpView'
import { dropTerritory, keepTerritory } from './territories'
import { calendar, newCalendar } from './calendar'
import { groundNow, importRoads, roadsOf } from './drives'
import { openings } from './openings'
import { schedule, scheduleRange } from './board'
import { removeSavedFilter, saveFilter, savedFilters } from './savedFilters'
import { keepPositions, mapDay, nearest, positionTrips } from './map'
import { daySheets, workSheet } from './sheets'
import { exportTerritories, importTerritories } from './territoryFile'
import { invite } from './invitations'
import { noticeOf, reminders, sendReminders, tell, textIn } from './visitMessages'
import { cancelVisit, lockVisit, placeVisit, promiseVisit, swapVisits } from './commands'
import { furtherVisit } from './further'
import { checkAsked } from './placing'
import { Raw } from '../http/route'

export const dispatchHandlers: Handlers<typeof dispatchRoutes> = {
  scheduleSetUp: (ctx) => scheduleSetUp(ctx),
  changeTechnician: (ctx, { params, body }) => changeTechnician(ctx, params.id!, body),
  addTimeOff: (ctx, { body }) => addTimeOff(ctx, body),
  removeTimeOff: (ctx, { params }) => takeTimeOffBack(ctx, params.id!),
  addEntry: (ctx, { body }) => addEntry(ctx, body),
  removeEntry: (ctx, { params }) => takeEntryBack(ctx, params.id!),
  keepTerritory: (ctx, { body }) => keepTerritory(ctx, body),
  dropTerritory: (ctx, { params, body }) => dropTerritory(ctx, params.id!, body),
  publicHolidays: (ctx, { query }) => publicHolidays(ctx, query),
  keepHoliday: (ctx, { body }) => keepHoliday(ctx, body),
  newCalendar: (ctx, { params }) => newCalendar(ctx, params.id!),
  calendar: (ctx, { params }) => calendar(ctx, params.token!),
  roads: (ctx) => roadsOf(ctx),
  importRoads: outside((call, { body }) => importRoads(call, body)),
  beginPlan: (ctx, { body }) => beginPlan(ctx, body),
  dayPlan: (ctx, { params }) => dayPlan(ctx, params.id!),
  stopPlan: (ctx, { params }) => stopPlan(ctx, params.id!),
  acceptPlan: (ctx, { params, body }) => acceptPlan(ctx, params.id!, body),
  openings: (ctx, { body }) => openings(ctx, body),
  importTerritories: (ctx, { body }) => importTerritories(ctx, body),
  exportTerritories: (ctx) => exportTerritories(ctx),
  keepClosing: (ctx, { body }) => keepClosing(ctx, body),
  keepYard: (ctx, { body }) => keepYard(ctx, body),
  keepDrives: (ctx, { body }) => keepDrives(ctx, body),
  keepVisitMessages: (ctx, { body }) => keepVisitMessages(ctx, body),
  scheduleRange: (ctx, { query }) => scheduleRange(ctx, query),
  savedFilters: (ctx) => savedFilters(ctx),
  saveFilter: (ctx, { body }) => saveFilter(ctx, body),
  removeSavedFilter: (ctx, { params }) => removeSavedFilter(ctx, params.id!),
  lockVisit: (ctx, { params, body }) => lockVisit(ctx, params.id!, body),
  furtherVisit: (ctx, { params, body }) => furtherVisit(ctx, params.id!, body),
  cancelVisit: (ctx, { params, body }) => cancelVisit(ctx, params.id!, body),
  inviteToVisit: (ctx, { params, body }) => invite(ctx, params.id!, body),
  workSheet: (ctx, { params }) => workSheet(ctx, params.id!),
  daySheets: (ctx, { params, query }) => daySheets(ctx, params.date!, query.technician),
  mapDay: (ctx, { query }) => mapDay(ctx, query.date),
  mapGround: async (ctx) => new Raw('application/geo+json', (await groundNow(ctx.tx)).json),
  nearest: (ctx, { body }) => nearest(ctx, body),
  positionTrips: (ctx) => positionTrips(ctx),
  positions: (ctx, { body }) => keepPositions(ctx, body),
  reminders: (ctx, { params }) => reminders(ctx, params.date!),
  sendReminders: (ctx, { params }) => sendReminders(ctx, params.date!),
  textIn: (ctx, { body }) => textIn(ctx, body),
  schedule: (ctx, { query }) => schedule(ctx, query.date),
  checkPlacement: async (ctx, { body }) => ({ warnings: await checkAsked(ctx, body) }),
  visitNotice: (ctx, { params }) => noticeOf(ctx, params.id!),
  tellCustomer: (ctx, { params, body }) => tell(ctx, params.id!, body),
  swapVisits: (ctx, { body }) => swapVisits(ctx, body),
  promiseVisit: (ctx, { params, body }) => promiseVisit(ctx, params.id!, body),
  placeVisit: (ctx, { params, body }) => placeVisit(ctx, params.id!, body),
}
