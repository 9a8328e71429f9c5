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
import { taxClasses } from '../settings/queries'
import { changeBook } from './changes'
import type { Change } from './worked'
import {
  allPartsInside,
  fullEntries,
  putEntries,
  setPartsInside,
  type EntryFacts,
  type FullEntry,
} from './queries'
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
export async function takeIn(ctx: Ctx, list: ImportRow, options: Options): Promise<Taken> {
  const staged = await stagedRows(ctx.tx, list.id)
  if (!staged.length) throw notFound('price list')
  const tell = (what: string, done: number) =>
    tellProgress(list.id, { what, done, of: staged.length })
  tell('checking', 0)
  const { full, insideOf, entries } = await known(ctx)
  const columns = list.columns as (BookField | null)[]
  const plan = importPlan(
    staged.map((r) => ({ row: r.row, ...readEntryRow(r.cells, columns) })),
    entries,
    {
      by: columns.includes('code') ? 'code' : 'part',
      supplier: list.supplier,
      category: options.category || list.supplier || 'Taken in',
      taxClass: options.taxClass,
      taxClasses: new Set((await taxClasses(ctx.tx)).keys()),
    },
  )
  const made = plan.rows.flatMap((r) =>
    r.becomes && r.state !== 'same'
      ? [{ ...r, becomes: r.becomes, entryId: r.id ?? ctx.id() }]
      : [],
  )
  const ids = new Map([
    ...entries.map((e) => [e.code, e.id] as const),
    ...made.map((r) => [r.becomes.code, r.entryId] as const),
  ])
  const byCode = new Map<string, EntryRecord>([
    ...entries.map((e) => [e.code, e] as const),
    ...made.map((r) => [r.becomes.code, r.becomes] as const),
  ])
  // Whoever does not see costs does not change them.
  const seesCost = signedIn(ctx).seesCost
  const costNow = (id: string | null) => (id ? full.get(id)!.cost : '0')
  const priceOf = new Map(
    made.map((r): [string, PriceSet] => [
      r.entryId,
      {
        cost: seesCost ? r.becomes.cost : costNow(r.id),
        price: r.becomes.price,
        furtherPrice: r.becomes.furtherPrice,
        pricing:
          options.fixed === 'by_rule' && r.changed.includes('cost') ? 'rule' : r.becomes.pricing,
      },
    ]),
  )
  for (let i = 0; i < made.length; i += 1000) {
    tell('writing', i)
    await putEntries(
      ctx.tx,
      made.slice(i, i + 1000).map((r) => {
        const b = r.becomes
        const hours =
          b.kind === 'assembly'
            ? insideHours(b.inside.map((p) => ({ ...byCode.get(p.code)!, quantity: p.quantity })))
            : { seconds: b.seconds, furtherSeconds: b.furtherSeconds }
        const facts: EntryFacts = {
          code: b.code,
          kind: b.kind,
          category: b.category,
          name: b.name,
          description: b.description,
          technicianNote: b.technicianNote,
          synonyms: b.synonyms,
          unit: b.unit,
          taxClass: b.taxClass,
          ...hours,
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
        // Prices of entries that are there change in the act below, with their history.
        const old = r.id ? full.get(r.id)! : priceOf.get(r.entryId)!
        return {
          id: r.entryId,
          facts,
          prices: {
            cost: old.cost,
            price: old.price,
            furtherPrice: old.furtherPrice,
            pricing: old.pricing,
          },
        }
      }),
    )
  }
  const refilled = made.filter((r) => !r.id || r.changed.includes('inside'))
  await setPartsInside(
    ctx.tx,
    refilled.flatMap((r) => r.id ?? []),
    refilled.flatMap((r) =>
      r.becomes.inside.map((p) => ({
        entryId: r.entryId,
        partId: ids.get(p.code)!,
        quantity: p.quantity,
      })),
    ),
  )
  const retired = options.vanished === 'retire' ? plan.vanished.map((e) => e.id) : []
  await setRetired(ctx.tx, retired, true)
  tell('pricing', staged.length)
  const fresh = new Set(made.filter((r) => !r.id).map((r) => r.entryId))
  const rows = await changeBook(ctx, {
    id: list.id,
    title: `Price list ${list.fileName}`,
    holdsFrom: ctx.today,
    changes: new Map([...priceOf].filter(([id]) => !fresh.has(id))),
    even: true,
    fresh,
  })
  const was = (id: string): FullEntryBefore | null =>
    full.has(id) ? { entry: full.get(id)!, inside: insideOf.get(id)! } : null
  return {
    plan,
    rows,
    touched: [...made.map((r) => r.entryId), ...retired].map((entryId) => ({
      entryId,
      was: was(entryId),
    })),
  }
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
