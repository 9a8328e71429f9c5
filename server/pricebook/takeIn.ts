// What a price list makes of the book, decided row by row.
import { notFound } from '../../core/errors/LedgerError'
import { readEntryRow, type BookField, type EntryRecord } from '../../core/pricebook/bookTable'
import {
  importPlan,
  type ImportPlan,
  type KnownEntry,
  type PlannedRow,
} from '../../core/pricebook/importPlan'
import type { PriceSet } from '../../core/pricebook/reprice'
import { insideHours } from '../../core/pricebook/insideHours'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { tellProgress } from '../jobs/progress'
import { usualTaxClasses } from '../settings/queries'
import { changeBook } from './changes'
import type { Change } from './worked'
import { fullEntries, putEntries, type EntryFacts, type FullEntry } from './queries'
import { allPartsInside, setPartsInside } from './inside.queries'
import { setRetired } from './usage.queries'
import { type FullEntryBefore, stagedRows, type ImportRow } from './imports.queries'

export type Options = Body<'lookAtPrices'>
interface Taken {
  plan: ImportPlan
  rows: Change[]
  touched: { entryId: string; was: FullEntryBefore | null }[]
}
export async function known(ctx: Ctx): Promise<{
  full: Map<string, FullEntry>
  insideOf: Map<string, { partId: string; quantity: string }[]>
  entries: KnownEntry[]
}> {
  const all = await fullEntries(ctx.tx)
  const codes = new Map(all.map((e) => [e.id, e.code]))
  const insideOf = new Map<string, { partId: string; quantity: string }[]>(
    all.map((e) => [e.id, []]),
  )
  for (const p of await allPartsInside(ctx.tx))
    insideOf.get(p.entryId)!.push({ partId: p.partId, quantity: p.quantity })
  return {
    full: new Map(all.map((e) => [e.id, e])),
    insideOf,
    entries: all.map((e) => ({
      ...e,
      labour: e.labourId ? codes.get(e.labourId)! : '',
      inside: insideOf
        .get(e.id)!
        .map((p) => ({ code: codes.get(p.partId)!, quantity: p.quantity })),
    })),
  }
}
type Known = Awaited<ReturnType<typeof known>>
type StagedRow = Awaited<ReturnType<typeof stagedRows>>[number]
/** A row of the list that makes or changes an entry. */
interface Made extends PlannedRow {
  becomes: EntryRecord
  entryId: string
}
async function planOf(
  ctx: Ctx,
  list: ImportRow,
  options: Options,
  { staged, entries }: { staged: StagedRow[]; entries: KnownEntry[] },
): Promise<ImportPlan> {
  const columns = list.columns as (BookField | null)[]
  return importPlan(
    staged.map((r) => ({ row: r.row, ...readEntryRow(r.cells, columns) })),
    entries,
    {
      by: columns.includes('code') ? 'code' : 'part',
      supplier: list.supplier,
      category: options.category || list.supplier || 'Taken in',
      taxClass: options.taxClass,
      taxClasses: new Set((await usualTaxClasses(ctx.tx)).map(({ id }) => id)),
    },
  )
}
/** Codes of the book as it will be: what they stand for, and which entry that is. */
function codesOf(entries: readonly KnownEntry[], made: readonly Made[]) {
  return {
    ids: new Map([
      ...entries.map((e) => [e.code, e.id] as const),
      ...made.map((r) => [r.becomes.code, r.entryId] as const),
    ]),
    records: new Map<string, EntryRecord>([
      ...entries.map((e) => [e.code, e] as const),
      ...made.map((r) => [r.becomes.code, r.becomes] as const),
    ]),
  }
}
type Codes = ReturnType<typeof codesOf>
/** Everything of an entry but its prices, as it is kept. */
function factsOf(b: EntryRecord, { ids, records }: Codes): EntryFacts {
  const inside = b.inside.map((p) => ({ ...records.get(p.code)!, quantity: p.quantity }))
  const { seconds, furtherSeconds } = b.kind === 'assembly' ? insideHours(inside) : b
  return {
    code: b.code,
    kind: b.kind,
    category: b.category,
    name: b.name,
    description: b.description,
    technicianNote: b.technicianNote,
    synonyms: b.synonyms,
    unit: b.unit,
    taxClass: b.taxClass,
    seconds,
    furtherSeconds,
    skills: b.skills,
    pinned: b.pinned,
    labourId: b.labour ? ids.get(b.labour)! : null,
    sundriesRate: b.sundriesRate,
    supplier: b.supplier,
    partNumber: b.partNumber,
    incomeCode: b.incomeCode,
    activeFrom: b.activeFrom,
    activeTo: b.activeTo,
    retired: b.retired,
  }
}
/** What each row would have its entry cost and be sold for. Whoever does not see costs does not change them. */
function pricesOf(ctx: Ctx, made: readonly Made[], { full }: Known, fixed: Options['fixed']) {
  const { seesCost } = signedIn(ctx)
  return new Map(
    made.map(({ id, entryId, becomes, changed }): [string, PriceSet] => {
      const kept = id ? full.get(id)!.cost : '0'
      const byRule = fixed === 'by_rule' && changed.includes('cost')
      return [
        entryId,
        {
          cost: seesCost ? becomes.cost : kept,
          price: becomes.price,
          furtherPrice: becomes.furtherPrice,
          pricing: byRule ? 'rule' : becomes.pricing,
        },
      ]
    }),
  )
}
const setOf = ({ cost, price, furtherPrice, pricing }: PriceSet): PriceSet => ({
  cost,
  price,
  furtherPrice,
  pricing,
})
/** What stands inside entries, where the list says so. */
async function refill(ctx: Ctx, made: readonly Made[], { ids }: Codes): Promise<void> {
  const refilled = made.filter((r) => !r.id || r.changed.includes('inside'))
  const inside = refilled.flatMap((r) =>
    r.becomes.inside.map(({ code, quantity }) => ({
      entryId: r.entryId,
      partId: ids.get(code)!,
      quantity,
    })),
  )
  await setPartsInside(
    ctx.tx,
    refilled.flatMap((r) => r.id ?? []),
    inside,
  )
}
const PIECE = 1000
export async function takeIn(ctx: Ctx, list: ImportRow, options: Options): Promise<Taken> {
  const staged = await stagedRows(ctx.tx, list.id)
  if (!staged.length) throw notFound('price list')
  const of = staged.length
  tellProgress(list.id, { what: 'checking', done: 0, of })
  const before = await known(ctx)
  const { full, insideOf, entries } = before
  const plan = await planOf(ctx, list, options, { staged, entries })
  const made = plan.rows.flatMap((r): Made[] =>
    r.becomes && r.state !== 'same'
      ? [{ ...r, becomes: r.becomes, entryId: r.id ?? ctx.id() }]
      : [],
  )
  const codes = codesOf(entries, made)
  const prices = pricesOf(ctx, made, before, options.fixed)
  for (let i = 0; i < made.length; i += PIECE) {
    tellProgress(list.id, { what: 'writing', done: i, of })
    const piece = made.slice(i, i + PIECE).map(({ id, entryId, becomes }) => ({
      id: entryId,
      facts: factsOf(becomes, codes),
      // Prices of entries that are there change in the act below, with their history.
      prices: setOf(id ? full.get(id)! : prices.get(entryId)!),
    }))
    await putEntries(ctx.tx, piece)
  }
  await refill(ctx, made, codes)
  const retired = options.vanished === 'retire' ? plan.vanished.map((e) => e.id) : []
  await setRetired(ctx.tx, retired, true)
  tellProgress(list.id, { what: 'pricing', done: of, of })
  const fresh = new Set(made.filter((r) => !r.id).map((r) => r.entryId))
  const rows = await changeBook(ctx, {
    id: list.id,
    title: `Price list ${list.fileName}`,
    holdsFrom: ctx.today,
    changes: new Map([...prices].filter(([id]) => !fresh.has(id))),
    even: true,
    fresh,
  })
  const was = (id: string): FullEntryBefore | null =>
    full.has(id) ? { entry: full.get(id)!, inside: insideOf.get(id)! } : null
  const touched = [...made.map((r) => r.entryId), ...retired]
  return { plan, rows, touched: touched.map((entryId) => ({ entryId, was: was(entryId) })) }
}
export function countsOf(plan: ImportPlan): Answer<'takePrices'>['counts'] {
  const count = (state: PlannedRow['state']) => plan.rows.filter((r) => r.state === state).length
  return {
    new: count('new'),
    changed: count('changed'),
    same: count('same'),
    wrong: count('wrong'),
    vanished: plan.vanished.length,
  }
}
