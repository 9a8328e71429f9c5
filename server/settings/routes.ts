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

import { changeFirm, firm } from './firm'

export const settingHandlers: Handlers<typeof settingRoutes> = {
  setUp: (ctx) => setUp(ctx),
  firm: (ctx) => firm(ctx),
  changeFirm: (ctx, { body }) => changeFirm(ctx, body),
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
