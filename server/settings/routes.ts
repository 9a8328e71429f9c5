// The routes of the set-up, bound to their service.
import type { settingRoutes } from '../../shared/settings'
import { outside, type Handlers } from '../http/route'
import { begin, beginning } from './begin'
import { changeFirm, firm } from './firm'
import { guide, tryMail } from './guide'
import { keepNumbers, numbers } from './numbers'
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
import { classesOfTax, keepTaxClass } from './taxes'

export const settingHandlers: Handlers<typeof settingRoutes> = {
  beginning: (ctx) => beginning(ctx),
  begin: outside((call, { body }) => begin(call, body)),
  taxClasses: (ctx) => classesOfTax(ctx),
  keepTaxClass: (ctx, { body }) => keepTaxClass(ctx, body),
  numbers: (ctx) => numbers(ctx),
  keepNumbers: (ctx, { body }) => keepNumbers(ctx, body),
  guide: (ctx) => guide(ctx),
  tryMail: (ctx) => tryMail(ctx),
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
