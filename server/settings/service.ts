// What the firm sets up for its calls: questions, its own fields, sources.
import { setCustom } from '../visits/index'
import { settingFacts } from './facts'
import { workFacts } from '../visits/facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { allPeople } from '../access/queries'
import { levels } from '../customers/queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { invoiceById } from '../invoices/queries'
import { workOrderById } from '../visits/queries'
import { faultOfValue } from './fields'
import {
  customFields,
  putSources,
  putStateLabels,
  putWarranty,
  questions,
  setClockOffset,
  territories,
  wordsOfFirm,
} from './queries'

export async function setUp(ctx: Ctx): Promise<Answer<'setUp'>> {
  return {
    country: ctx.company.country,
    sources: ctx.company.sources,
    warrantyMonths: ctx.company.warrantyMonths,
    billedTime: ctx.company.billedTime,
    questions: await questions(ctx.tx),
    fields: await customFields(ctx.tx),
    territories: await territories(ctx.tx),
    levels: (await levels(ctx.tx)).map(({ id, name }) => ({ id, name })),
    people: await allPeople(ctx.tx),
  }
}
/** The demo's clock runs with the wall's from now on. */
export async function demoClockToNow(ctx: Ctx): Promise<Answer<'demoClockToNow'>> {
  if (ctx.company.demoDay === null)
    throw conflict('no_demo', 'This is no demo; its clock is the real one.')
  await setClockOffset(ctx.tx, 0)
  await record(ctx, { subject: 'settings', id: ctx.id(), fact: settingFacts.clockSet() })
  return { ok: true }
}
const MOST_SOURCES = 40
/** One is added, or taken out, among those that stand there now: two people who do so at once keep both. */
export async function keepSources(
  ctx: Ctx,
  { add, takeOut }: Body<'keepSources'>,
): Promise<Answer<'keepSources'>> {
  if (!add && !takeOut) throw invalid('add', 'A source without a word.')
  const { sources } = await wordsOfFirm(ctx.tx)
  if (add && sources.some((source) => source.toLowerCase() === add.toLowerCase()))
    throw invalid('add', `“${add}” is there already.`)
  const now = [...sources.filter((source) => source !== takeOut), ...(add ? [add] : [])]
  if (now.length > MOST_SOURCES) throw invalid('add', `There may be ${MOST_SOURCES} at most.`)
  await changeSources(ctx, { from: sources, to: now })
  return { ok: true }
}
interface Became<T> {
  from: T
  to: T
}
/** Where callers hear of the firm, from now on. */
export async function changeSources(ctx: Ctx, sources: Became<string[]>): Promise<void> {
  await putSources(ctx.tx, sources.to)
  const fact = settingFacts.sourcesChanged({ sources })
  await record(ctx, { subject: 'settings', id: ctx.id(), fact })
}
/** How long the firm stands for what it supplied. */
export async function keepWarranty(
  ctx: Ctx,
  { months }: Body<'keepWarranty'>,
): Promise<Answer<'keepWarranty'>> {
  await putWarranty(ctx.tx, months)
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.warrantySaid({ months: { from: ctx.company.warrantyMonths, to: months } }),
  })
  return { ok: true }
}
/** The meaning of a state stays; only the word that people read changes. An empty word is the usual one. */
export async function keepStateLabels(
  ctx: Ctx,
  body: Body<'keepStateLabels'>,
): Promise<Answer<'keepStateLabels'>> {
  const { stateLabels } = await wordsOfFirm(ctx.tx)
  const given = Object.fromEntries(body.labels.map(({ state, label }) => [state, label]))
  const now = Object.entries({ ...stateLabels, ...given }).filter(([, label]) => label)
  await changeStateLabels(ctx, { from: stateLabels, to: Object.fromEntries(now) })
  return { ok: true }
}
/** The firm’s own words for states, from now on. */
export async function changeStateLabels(
  ctx: Ctx,
  words: Became<Record<string, string>>,
): Promise<void> {
  await putStateLabels(ctx.tx, words.to)
  const fact = settingFacts.stateWordsChanged({ words })
  await record(ctx, { subject: 'settings', id: ctx.id(), fact })
}
/** Fills a field of a work order or an invoice; those of customers and sites are changed with their rows. */
export async function fillField(ctx: Ctx, body: Body<'fillField'>): Promise<Answer<'fillField'>> {
  const field = (await customFields(ctx.tx)).find((f) => f.id === body.fieldId)
  if (!field || (field.subject !== 'work_order' && field.subject !== 'invoice'))
    throw notFound('field')
  const fault = faultOfValue(field, body.value)
  if (fault) throw invalid('value', fault)
  const row =
    field.subject === 'work_order'
      ? await workOrderById(ctx.tx, body.subjectId, true)
      : await invoiceById(ctx.tx, body.subjectId, true)
  if (!row) throw notFound(field.subject.replace('_', ' '))
  await setCustom(ctx.tx, field.subject === 'work_order' ? 'work_orders' : 'invoices', row.id, {
    ...row.custom,
    [field.id]: body.value,
  })
  await record(ctx, {
    subject: field.subject === 'work_order' ? 'work' : 'invoice',
    id: row.id,
    workOrderId: field.subject === 'work_order' ? row.id : null,
    customerId: row.customerId,
    fact: workFacts.fieldFilled({ field: field.name, value: body.value }),
  })
  return { ok: true }
}
