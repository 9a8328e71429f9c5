// The routes of the schedule, bound to their service.
import type { dispatchRoutes } from '../../shared/dispatch'
import type { Handlers } from '../http/handlers'
import { openings } from './openings'
import { checkPlacement, placeVisit, schedule } from './service'

export const dispatchHandlers: Handlers<typeof dispatchRoutes> = {
  openings: (ctx, { body }) => openings(ctx, body),
  schedule: (ctx, { query }) => schedule(ctx, query.date),
  checkPlacement: async (ctx, { body }) => ({ warnings: await checkPlacement(ctx, { ...body, startAt: Date.parse(body.startAt) }) }),
  placeVisit: (ctx, { params, body }) => placeVisit(ctx, params.id!, body),
}
