// Acts on an entry of the book: kept, tried, pictured.
import { priceFacts } from './facts'
import { ENTRY_KINDS } from '../../core/pricebook/kinds'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { minorToDecimal } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import type { PricedEntry } from '../../core/pricebook/explainPrice'
import { ruled, type PriceSet } from '../../core/pricebook/reprice'
import { insideHours } from '../../core/pricebook/insideHours'
import { searchKey } from '../../core/text/searchKey'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { fromBase64 } from '../http/files'
import { redraw, type Picture } from '../http/pictures'
import { Raw, type Call } from '../http/route'
import { record } from '../http/queries'
import { usualTaxClasses } from '../settings/queries'
import { changeBook } from './changes'
import {
  entriesById,
  entryByCode,
  entryById,
  insertEntry,
  lockBook,
  standardLabour,
  updateEntry,
  type EntryFacts,
  type EntryRow,
} from './queries'
import { namedLike } from './names.queries'
import { setPartsInside } from './inside.queries'
import { insertPicture, pictureById, setPicture } from './pictures.queries'
import { asPriced, rulesOf, whyOf } from './rules'
import type { Paper } from './entryView'
import { priceEntry, costsOf } from './entryView'

type PartIn = { partId: string; quantity: string }
/** Entries by identifier, those that are there. */
async function entriesNamed(ctx: Ctx, ids: string[]): Promise<Map<string, EntryRow>> {
  return new Map((await entriesById(ctx.tx, ids)).map((e) => [e.id, e]))
}
function mayHaveInside(kind: string, parts: readonly PartIn[]): void {
  if (parts.length && kind !== 'task' && kind !== 'assembly')
    throw invalid('parts', 'Only a task or an assembly has something inside.')
  if (!parts.length && kind === 'assembly')
    throw invalid('parts', 'Put something into the assembly.')
}
/** A task is made of parts, an assembly of everything but assemblies. */
function mayBeInside(of: string, kind: string | undefined, path: string): void {
  if (of === 'task' && kind !== 'part')
    throw invalid(`${path}.partId`, 'This is no part of the price book.')
  if (!kind || kind === 'assembly')
    throw invalid(
      `${path}.partId`,
      'An assembly is made of tasks, parts, labour and charges of the price book.',
    )
}
/** What is put into a task or an assembly, checked: entries of the book, each once. */
async function checkedParts(ctx: Ctx, kind: string, parts: PartIn[]) {
  mayHaveInside(kind, parts)
  const known = await entriesNamed(
    ctx,
    parts.map((p) => p.partId),
  )
  for (const [i, p] of parts.entries()) {
    mayBeInside(kind, known.get(p.partId)?.kind, `parts[${i}]`)
    if (parts.findIndex((o) => o.partId === p.partId) !== i)
      throw invalid(`parts[${i}].partId`, 'This is in it already; change how many.')
    if (new Decimal(p.quantity).isZero())
      throw invalid(`parts[${i}].quantity`, 'The quantity is zero.')
  }
  const order = (e: EntryRow) => `${ENTRY_KINDS.indexOf(e.kind)} ${e.code}`
  return parts
    .map(({ partId, quantity }) => ({ e: known.get(partId)!, quantity }))
    .sort((a, b) => order(a.e).localeCompare(order(b.e)))
    .map(({ e, quantity }) => {
      const { name, price, furtherPrice, cost, kind: of } = e
      return { name, price, furtherPrice, cost, kind: of, quantity }
    })
}
/** How long what is inside an assembly takes. */
const hoursInside = async (ctx: Ctx, parts: readonly { partId: string; quantity: string }[]) =>
  insideHours(
    (
      await entriesById(
        ctx.tx,
        parts.map((p) => p.partId),
      )
    ).map((e) => ({ ...e, quantity: parts.find((p) => p.partId === e.id)!.quantity })),
  )
async function labourOf(ctx: Ctx, id: string | null) {
  if (!id) return null
  const [labour] = await entriesById(ctx.tx, [id])
  if (labour?.kind !== 'labour') throw invalid('labourId', 'Choose one of the labour rates.')
  return { name: labour.name, price: labour.price, cost: labour.cost }
}
export async function keepPricePicture(
  call: Call,
  id: string,
  body: Body<'keepPricePicture'>,
): Promise<Paper> {
  const picture = body.data ? await redraw(fromBase64(body.data)) : null
  return call.once((ctx) => setPriceEntryPicture(ctx, id, body, picture))
}
async function setPriceEntryPicture(
  ctx: Ctx,
  id: string,
  body: Body<'keepPricePicture'>,
  picture: Picture | null,
): Promise<Paper> {
  const e = await entryById(ctx.tx, id, true)
  if (!e) throw notFound('entry of the price book')
  const pictureId = picture ? ctx.id() : null
  if (picture && pictureId) await insertPicture(ctx.tx, { id: pictureId, entryId: id, ...picture })
  if (!(await setPicture(ctx.tx, id, body.version, pictureId)))
    throw conflict('stale', 'Someone changed this entry in the meantime.', {
      current: await priceEntry(ctx, id),
      yours: { version: body.version },
    })
  await record(ctx, {
    subject: 'prices',
    id,
    fact: (pictureId ? priceFacts.pictured : priceFacts.pictureRemoved)({
      code: e.code,
      name: e.name,
    }),
  })
  return priceEntry(ctx, id)
}
export async function pricePicture(ctx: Ctx, id: string): Promise<Raw> {
  const picture = await pictureById(ctx.tx, id)
  if (!picture) throw notFound('picture')
  return new Raw(picture.mime, picture.bytes)
}
/** Whether an entry was made, retired or changed. */
function cameOf(before: { retired: boolean } | null | undefined, kept: { retired: boolean }) {
  if (!before) return priceFacts.made
  return kept.retired && !before.retired ? priceFacts.retired : priceFacts.changed
}
type Kept = Body<'keepPriceEntry'>
type Before = Awaited<ReturnType<typeof entryById>>
async function checkEntry(ctx: Ctx, id: string, body: Kept, before: Before): Promise<void> {
  const same = await entryByCode(ctx.tx, body.code)
  if (same && same.id !== id) throw invalid('code', 'Another entry has this code.')
  if (!(await usualTaxClasses(ctx.tx)).some(({ id }) => id === body.taxClass))
    throw invalid('taxClass', 'Choose how it is taxed.')
  if (body.activeFrom && body.activeTo && body.activeTo < body.activeFrom)
    throw invalid('activeTo', 'It ends before it begins.')
  if (before && body.kind !== before.kind)
    throw invalid(
      'kind',
      'The kind of an entry stays: documents were made with it. Retire this one and make another.',
    )
}
/** What is written of an entry. An assembly is what is inside it: its hours are nobody's to write. */
async function factsOf(ctx: Ctx, body: Kept): Promise<EntryFacts> {
  const { version: _v, pricing: _p, cost: _c, price: _q, furtherPrice: _f, ...rest } = body
  const { parts, ...facts } = rest
  if (body.kind === 'assembly') Object.assign(facts, await hoursInside(ctx, parts))
  return {
    ...facts,
    activeFrom: facts.activeFrom || null,
    activeTo: facts.activeTo || null,
    sundriesRate: facts.sundriesRate || null,
  }
}
/** Its prices, worked out here, whatever the screen thought that they would be. */
async function pricesOf(ctx: Ctx, body: Kept, kept: EntryFacts, before: Before): Promise<PriceSet> {
  const parts = await checkedParts(ctx, body.kind, body.parts)
  const labour = await labourOf(ctx, body.labourId)
  if (body.kind === 'task' && body.pricing === 'rule' && !labour)
    throw invalid('labourId', 'A task that is priced by the rule needs its labour rate.')
  const priced = {
    ...kept,
    pricing: body.kind === 'assembly' ? ('rule' as const) : body.pricing,
    // Whoever does not see costs does not change them.
    cost: signedIn(ctx).seesCost ? body.cost : (before?.cost ?? '0'),
    price: body.price,
    furtherPrice: body.kind === 'task' ? body.furtherPrice : null,
  }
  return ruled(asPriced(priced, labour, parts), await rulesOf(ctx), ctx.company.currency)
}
async function staleEntry(ctx: Ctx, id: string, body: Kept): Promise<never> {
  throw conflict(
    'stale',
    'Someone changed this entry in the meantime. What you typed is still here; what they changed is beside it.',
    { current: await priceEntry(ctx, id), yours: body },
  )
}
export async function keepPriceEntry(ctx: Ctx, id: string, body: Kept): Promise<Paper> {
  await lockBook(ctx.tx)
  const before = await entryById(ctx.tx, id, true)
  await checkEntry(ctx, id, body, before)
  const kept = await factsOf(ctx, body)
  const set = await pricesOf(ctx, body, kept, before)
  const { version } = body
  if (!before && version !== 0) throw notFound('entry of the price book')
  if (!before) await insertEntry(ctx.tx, id, kept, set)
  else if (version === 0 || !(await updateEntry(ctx.tx, id, version, kept)))
    await staleEntry(ctx, id, body)
  const inside = body.parts.map((part) => ({ entryId: id, ...part }))
  await setPartsInside(ctx.tx, [id], inside)
  if (before)
    await changeBook(ctx, {
      id: ctx.id(),
      title: `${kept.code} changed`,
      holdsFrom: ctx.today,
      changes: new Map([[id, set]]),
    })
  const fact = cameOf(before, kept)({ code: kept.code, name: kept.name })
  await record(ctx, { subject: 'prices', id, fact })
  return priceEntry(ctx, id)
}
/** What the rule would ask, where the price is fixed and the rule asks something else. */
function priceByRule(
  { currency }: Ctx['company'],
  entry: PricedEntry,
  rules: Awaited<ReturnType<typeof rulesOf>>,
  price: string,
): string | null {
  if (entry.pricing !== 'fixed') return null
  const rule = ruled({ ...entry, pricing: 'rule' }, rules, currency)
  return rule.pricing === 'rule' && !new Decimal(rule.price).eq(price) ? rule.price : null
}
/** Entries that are named alike, with their prices: one word alone would name half of the book. */
async function namedAlike(ctx: Ctx, name: string, id: string) {
  const { currency } = ctx.company
  const words = searchKey(name)
    .split(' ')
    .filter((w) => w.length > 2 || /\d/.test(w))
  if (words.length < 2) return []
  return (await namedLike(ctx.tx, words, id)).map((a) => ({
    ...a,
    price: minorToDecimal(roundToMinor(a.price, currency), currency),
  }))
}
/** What it would cost, and why, while it is typed; and what is named like it already. */
export async function tryPrice(ctx: Ctx, body: Body<'tryPrice'>): Promise<Answer<'tryPrice'>> {
  const parts = await checkedParts(ctx, body.kind, body.parts)
  const labour = await labourOf(ctx, body.labourId)
  // Whoever does not see costs tries with the one that is kept.
  const kept = async () => (await entryById(ctx.tx, body.id))?.cost ?? '0'
  const cost = signedIn(ctx).seesCost ? body.cost : await kept()
  const entry = asPriced({ ...body, cost, sundriesRate: body.sundriesRate || null }, labour, parts)
  const rules = await rulesOf(ctx)
  const { why, whyFurther } = whyOf(ctx, entry, rules)
  const byRule = priceByRule(ctx.company, entry, rules, why.price)
  const hourCost = (labour ?? (await standardLabour(ctx.tx)))?.cost
  const { seconds } = entry.kind === 'assembly' ? await hoursInside(ctx, body.parts) : entry
  const left = (price: string) => costsOf(ctx, { ...entry, seconds }, price, hourCost)
  return {
    why,
    whyFurther,
    byRule,
    marginByRule: byRule === null ? null : left(byRule).margin,
    ...left(why.price),
    alike: await namedAlike(ctx, body.name, body.id),
  }
}
