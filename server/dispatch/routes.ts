// The routes of the schedule, bound to their service.
import type { dispatchRoutes } from '../../shared/dispatch'
import type { Handlers } from '../http/handlers'
import { acceptPlan, beginPlan, dayPlan, stopPlan } from './dayPlan'
import { importRoads, roadsOf } from './drives'
import { openings } from './openings'
import { checkPlacement, placeVisit, schedule, swapVisits } from './service'

export const dispatchHandlers: Handlers<typeof dispatchRoutes> = {
  roads: ctx => roadsOf(ctx),
  importRoads: (ctx, { body }) => importRoads(ctx, body),
  beginPlan: (ctx, { body }) => beginPlan(ctx, body),
  dayPlan: (ctx, { params }) => dayPlan(ctx, params.id!),
  stopPlan: (ctx, { params }) => stopPlan(ctx, params.id!),
  acceptPlan: (ctx, { params, body }) => acceptPlan(ctx, params.id!, body),
  openings: (ctx, { body }) => openings(ctx, body),
  schedule: (ctx, { query }) => schedule(ctx, query.date),
  checkPlacement: async (ctx, { body }) => ({ warnings: await checkPlacement(ctx, { ...body, startAt: Date.parse(body.startAt) }) }),
  swapVisits: (ctx, { body }) => swapVisits(ctx, body),
  placeVisit: (ctx, { params, body }) => placeVisit(ctx, params.id!, body),
}
