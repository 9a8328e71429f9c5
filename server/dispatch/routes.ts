// The routes of the schedule, bound to their service.
import type { dispatchRoutes } from '../../shared/dispatch'
import type { Handlers } from '../http/handlers'
import { acceptPlan, beginPlan, dayPlan, stopPlan } from './dayPlan'
import { addEntry, addTimeOff, changeTechnician, keepHoliday, keepTerritory, scheduleSetUp, takeEntryBack, takeTimeOffBack } from './setUp'
import { calendar, newCalendar } from './calendar'
import { importRoads, roadsOf } from './drives'
import { openings } from './openings'
import { noticeOf, tell } from './tell'
import { checkPlacement, placeVisit, schedule, swapVisits } from './service'

export const dispatchHandlers: Handlers<typeof dispatchRoutes> = {
  scheduleSetUp: ctx => scheduleSetUp(ctx),
  changeTechnician: (ctx, { params, body }) => changeTechnician(ctx, params.id!, body),
  addTimeOff: (ctx, { body }) => addTimeOff(ctx, body),
  removeTimeOff: (ctx, { params }) => takeTimeOffBack(ctx, params.id!),
  addEntry: (ctx, { body }) => addEntry(ctx, body),
  removeEntry: (ctx, { params }) => takeEntryBack(ctx, params.id!),
  keepTerritory: (ctx, { body }) => keepTerritory(ctx, body),
  keepHoliday: (ctx, { body }) => keepHoliday(ctx, body),
  newCalendar: (ctx, { params }) => newCalendar(ctx, params.id!),
  calendar: (ctx, { params }) => calendar(ctx, params.token!),
  roads: ctx => roadsOf(ctx),
  importRoads: (ctx, { body }) => importRoads(ctx, body),
  beginPlan: (ctx, { body }) => beginPlan(ctx, body),
  dayPlan: (ctx, { params }) => dayPlan(ctx, params.id!),
  stopPlan: (ctx, { params }) => stopPlan(ctx, params.id!),
  acceptPlan: (ctx, { params, body }) => acceptPlan(ctx, params.id!, body),
  openings: (ctx, { body }) => openings(ctx, body),
  schedule: (ctx, { query }) => schedule(ctx, query.date),
  checkPlacement: async (ctx, { body }) => ({ warnings: await checkPlacement(ctx, { ...body, startAt: Date.parse(body.startAt) }) }),
  visitNotice: (ctx, { params }) => noticeOf(ctx, params.id!),
  tellCustomer: (ctx, { params, body }) => tell(ctx, params.id!, body),
  swapVisits: (ctx, { body }) => swapVisits(ctx, body),
  placeVisit: (ctx, { params, body }) => placeVisit(ctx, params.id!, body),
}
