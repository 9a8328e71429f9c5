// The routes of the set-up, bound to their service.
import type { settingRoutes } from '../../shared/settings'
import type { Handlers } from '../http/route'
import {
  demoClockToNow,
  fillField,
  keepField,
  keepLimits,
  limitsNow,
  keepQuestion,
  keepSources,
  keepStateLabels,
  keepWarranty,
  setUp,
} from './service'

export const settingHandlers: Handlers<typeof settingRoutes> = {
  setUp: (ctx) => setUp(ctx),
  keepQuestion: (ctx, { body }) => keepQuestion(ctx, body),
  keepField: (ctx, { body }) => keepField(ctx, body),
  demoClockToNow: (ctx) => demoClockToNow(ctx),
  keepWarranty: (ctx, { body }) => keepWarranty(ctx, body),
  keepSources: (ctx, { body }) => keepSources(ctx, body),
  limits: (ctx) => Promise.resolve(limitsNow(ctx)),
  keepLimits: (ctx, { body }) => keepLimits(ctx, body),
  keepStateLabels: (ctx, { body }) => keepStateLabels(ctx, body),
  fillField: (ctx, { body }) => fillField(ctx, body),
}
