// What was set up, by whom, from what to what; and back again, for as long as nobody has set it up otherwise since.
import { GRANTABLE, GRANTABLE_NAMES } from '../../core/access/grantable'
import { forbidden, notFound } from '../../core/errors/LedgerError'
import type { MailKind } from '../../core/text/mailWords'
import type { BilledTime } from '../../core/hours/billedTime'
import { phrasesOf, type PhraseListName } from '../../core/settings/phrases'
import { workKinds, type KeptKind } from '../../core/visits/workKinds'
import type { Answer, Body } from '../../shared/api'
import { may, type Ctx } from '../http/context'
import type { Change } from '../http/facts'
import { historyOfFacts } from '../http/queries'
import { putChanges } from './firm'
import { putMailWords } from './mailWords'
import { firmRow, lockFirm } from './firm.queries'
import { settingEntries, type SettingEntry } from './history.queries'
import { getCompany, rightsOfFirm, type Rights } from './queries'
import { keepLayout, keptOf } from './layouts'
import { layoutRows } from './layouts.queries'
import { keepTaxClass } from './taxes'
import { taxClassRows } from './taxes.queries'
import { alike } from './asShown'
import { refuseChanged, stoodBefore, undoes, undoOf, type Undo } from './undoes'
import { changeBilledTime } from './billedTime'
import { changePhrases, phrasesNow } from './phrases'
import { changeWorkKinds, kindsOf } from './workKinds'
import { changeRoles, howFar, keepLimits, limitsNow } from './rights'
import { changeSources, changeStateLabels, keepWarranty } from './service'

async function undoFirm(ctx: Ctx, { changes }: { changes: Record<string, Change> }): Promise<void> {
  const now = (await firmRow(ctx.tx, true))!
  const parts = Object.entries(changes)
  for (const [part, { to }] of parts) refuseChanged(now[part as keyof typeof now], to)
  const before = Object.fromEntries(parts.map(([part, { from }]) => [part, from]))
  await putChanges(ctx, now.version, before as never)
}
type Roles = Record<string, Omit<Body<'keepLimits'>['roles'][number], 'role'>>
type Given = Record<string, Body<'keepLimits'>['given'][number]['roles']>
/** Acts stand in the history by their words. */
const permissionOf = (words: string) =>
  GRANTABLE_NAMES.find((permission) => GRANTABLE[permission].words === words)!
async function undoLimits(
  ctx: Ctx,
  { limits, given = {} }: { limits: Change; given?: Change },
): Promise<void> {
  if (!may(ctx, 'limits.change')) throw forbidden('Only an owner changes what each may do.')
  const [was, left] = [limits.from as Roles, limits.to as Roles]
  const [gave, gives] = [(given.from ?? {}) as Given, (given.to ?? {}) as Given]
  const now = limitsNow(ctx)
  const roles = Object.keys(was).filter((role) => !alike(was[role], left[role]))
  const acts = Object.keys(gave).filter((words) => !alike(gave[words], gives[words]))
  for (const role of roles) {
    const stands = now.roles.find((one) => one.role === role)
    refuseChanged(stands && howFar(stands), left[role])
  }
  for (const words of acts) {
    const stands = now.given.find(({ permission }) => permission === permissionOf(words))!
    refuseChanged(stands.roles, gives[words])
  }
  await keepLimits(ctx, {
    roles: roles.map((role) => ({ role, ...was[role]! })),
    given: acts.map((words) => ({ permission: permissionOf(words), roles: gave[words]! })),
  })
}
/** Roles come back as they were, with what was given to them, while nothing of it was changed since. */
async function undoRoles(
  ctx: Ctx,
  { name, rights }: { name: string; rights: { from: Rights; to: Rights } },
): Promise<void> {
  const from = await rightsOfFirm(ctx.tx)
  refuseChanged(from, rights.to)
  await changeRoles(ctx, name, { from, to: rights.from })
}
type Rates = Body<'keepTaxClass'>['rates']
async function undoTaxes(
  ctx: Ctx,
  { id, changes }: { id: string; changes: { rates: Change } },
): Promise<void> {
  const now = (await taxClassRows(ctx.tx)).find((one) => one.id === id)
  if (!now) throw notFound('class of taxes')
  const [was, left] = [changes.rates.from as Rates, changes.rates.to as Rates]
  const shown = { name: now.name, rates: left }
  await keepTaxClass(ctx, { id, name: now.name, rates: was, shown, sure: true })
}
type KeptLayout = ReturnType<typeof keptOf>
async function undoLayout(
  ctx: Ctx,
  { id, changes }: { id: string; changes: { layout: Change } },
): Promise<void> {
  const now = (await layoutRows(ctx.tx)).find((one) => one.id === id)
  if (!now) throw notFound('layout')
  refuseChanged(keptOf(now), changes.layout.to)
  const { kind, version } = now
  await keepLayout(ctx, { ...(changes.layout.from as KeptLayout), id, version, kind })
}
/** How each of them is put back. */
const own = (back: Undo['back']): Undo => ({ may: 'settings.change', back })
undoes({
  'settings.firmChanged': own(undoFirm),
  'settings.limitsChanged': { may: 'limits.change', back: undoLimits },
  'settings.rolesChanged': { may: 'limits.change', back: undoRoles },
  'settings.taxesKept': { ...own(undoTaxes), fits: stoodBefore },
  'settings.layoutKept': { ...own(undoLayout), fits: stoodBefore },
  'settings.mailWordsKept': own(async (ctx, f: { kind: MailKind; changes: { text: Change } }) => {
    const { from, to } = f.changes.text as { from: string; to: string }
    refuseChanged(ctx.company.wording[f.kind] ?? '', to)
    await putMailWords(ctx, f.kind, from)
  }),
  'settings.warrantySaid': own(async (ctx, { months }: { months: Change }) => {
    refuseChanged(ctx.company.warrantyMonths, months.to)
    await keepWarranty(ctx, { months: months.from as number })
  }),
  'settings.billedTimeSaid': own(async (ctx, { time }: { time: Change }) => {
    const { billedTime: from } = ctx.company
    refuseChanged(from, time.to)
    await changeBilledTime(ctx, { from, to: time.from as BilledTime })
  }),
  'settings.sourcesChanged': own(async (ctx, { sources }: { sources: Change }) => {
    refuseChanged(ctx.company.sources, sources.to)
    await changeSources(ctx, { from: ctx.company.sources, to: sources.from as string[] })
  }),
  'settings.workKindsChanged': own(async (ctx, { kinds }: { kinds: Change }) => {
    const from = kindsOf(ctx)
    // Entries from before kinds charged anything say nothing of it.
    const [was, left] = [kinds.from, kinds.to].map((all) => workKinds(all as KeptKind[]))
    refuseChanged(from, left)
    await changeWorkKinds(ctx, { from, to: was! })
  }),
  'settings.phrasesKept': own(
    async (ctx, { list: name, phrases }: { list: PhraseListName; phrases: Change }) => {
      const now = await phrasesNow(ctx)
      const from = phrasesOf(name, now)
      refuseChanged(from, phrases.to)
      await changePhrases(ctx, now, { name, from, to: phrases.from as string[] })
    },
  ),
  'settings.stateWordsChanged': own(async (ctx, { words }: { words: Change }) => {
    const { stateLabels: from } = ctx.company
    refuseChanged(from, words.to)
    await changeStateLabels(ctx, { from, to: words.from as Record<string, string> })
  }),
})
/** Facts of what is set up, wherever: of the firm, of the schedule, of where places are. */
const OF_SETTINGS = ['settings.', 'schedule.', 'customer.postcodes'] as const
function mayUndo(ctx: Ctx, { code, data }: SettingEntry): boolean {
  const undo = undoOf(code, data)
  return undo !== null && may(ctx, undo.may)
}
export async function settingsHistory(
  ctx: Ctx,
  before?: number,
): Promise<Answer<'settingsHistory'>> {
  const items = await historyOfFacts(ctx, OF_SETTINGS, before)
  const entries = await settingEntries(
    ctx.tx,
    items.map(({ id }) => id),
  )
  return {
    items,
    undoable: entries.filter((entry) => mayUndo(ctx, entry)).map(({ id }) => id),
  }
}
/** Puts back what an entry of the history changed. */
export async function undoSetting(ctx: Ctx, entry: string): Promise<Answer<'undoSetting'>> {
  const [stored] = /^\d{1,15}$/.test(entry) ? await settingEntries(ctx.tx, [Number(entry)]) : []
  const undo = stored && undoOf(stored.code, stored.data)
  if (!undo) throw notFound('change that can be undone')
  if (!may(ctx, undo.may)) throw forbidden('Who may not change this does not put it back.')
  // What stands there now is looked at once nobody else can change it.
  await lockFirm(ctx.tx)
  const company = (await getCompany(ctx.tx))!
  await undo.back({ ...ctx, company }, stored.data as never)
  return settingsHistory(ctx)
}
