// The routes of the set-up, bound to their service.
import { notFound } from '../../core/errors/LedgerError'
import type { settingRoutes } from '../../shared/settings'
import { outside, Raw, type Handlers } from '../http/route'
import { keepField, keepQuestion } from './asked'
import { begin, beginning } from './begin'
import { changeFirm, firm, keepLogo } from './firm'
import { logoById } from './firm.queries'
import { guide, tryMail } from './guide'
import { settingsHistory, undoSetting } from './history'
import { keepLayout, layoutExamples, layoutNames, layoutPdf, layouts } from './layouts'
import { keepMailWords, mailWords, tryMailWords } from './mailWords'
import { keepNumbers, numbers } from './numbers'
import { dropRole, keepLimits, keepRole, limitsNow } from './rights'
import {
  demoClockToNow,
  fillField,
  keepSources,
  keepStateLabels,
  keepWarranty,
  setUp,
} from './service'
import { classesOfTax, keepTaxClass } from './taxes'
import { keepBilledTime } from './billedTime'
import { keepPhrases, listPhrases } from './phrases'
import { keepWorkKind, listWorkKinds } from './workKinds'

export const settingHandlers: Handlers<typeof settingRoutes> = {
  beginning: (ctx) => beginning(ctx),
  begin: outside((call, { body }) => begin(call, body)),
  taxClasses: (ctx) => classesOfTax(ctx),
  keepTaxClass: (ctx, { body }) => keepTaxClass(ctx, body),
  mailWords: (ctx) => Promise.resolve(mailWords(ctx)),
  keepMailWords: (ctx, { body }) => keepMailWords(ctx, body),
  tryMailWords: (ctx, { body }) => tryMailWords(ctx, body),
  layouts: (ctx) => layouts(ctx),
  layoutNames: (ctx) => layoutNames(ctx),
  keepLayout: (ctx, { body }) => keepLayout(ctx, body),
  layoutExamples: (ctx) => layoutExamples(ctx),
  layoutPdf: (ctx, { params }) => layoutPdf(ctx, params.id!),
  numbers: (ctx) => numbers(ctx),
  keepNumbers: (ctx, { body }) => keepNumbers(ctx, body),
  guide: (ctx) => guide(ctx),
  tryMail: (ctx) => tryMail(ctx),
  setUp: (ctx) => setUp(ctx),
  firm: (ctx) => firm(ctx),
  settingsHistory: (ctx, { query }) => settingsHistory(ctx, query.before),
  undoSetting: (ctx, { params }) => undoSetting(ctx, params.entry!),
  keepLogo: outside((call, { body }) => keepLogo(call, body)),
  async logo(ctx, { params }) {
    const logo = await logoById(ctx.tx, params.id!)
    if (!logo) throw notFound('logo')
    return new Raw(logo.mime, logo.bytes, '', true)
  },
  changeFirm: (ctx, { body }) => changeFirm(ctx, body),
  keepQuestion: (ctx, { body }) => keepQuestion(ctx, body),
  keepField: (ctx, { body }) => keepField(ctx, body),
  demoClockToNow: (ctx) => demoClockToNow(ctx),
  keepBilledTime: (ctx, { body }) => keepBilledTime(ctx, body),
  keepWarranty: (ctx, { body }) => keepWarranty(ctx, body),
  workKinds: (ctx) => listWorkKinds(ctx),
  keepWorkKind: (ctx, { body }) => keepWorkKind(ctx, body),
  phrases: async (ctx) => listPhrases(ctx),
  keepPhrases: (ctx, { body }) => keepPhrases(ctx, body),
  keepSources: (ctx, { body }) => keepSources(ctx, body),
  limits: (ctx) => Promise.resolve(limitsNow(ctx)),
  keepLimits: (ctx, { body }) => keepLimits(ctx, body),
  keepRole: (ctx, { body }) => keepRole(ctx, body),
  dropRole: (ctx, { body }) => dropRole(ctx, body),
  keepStateLabels: (ctx, { body }) => keepStateLabels(ctx, body),
  fillField: (ctx, { body }) => fillField(ctx, body),
}
