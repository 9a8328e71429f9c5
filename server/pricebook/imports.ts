// A price list from a file: rows wait as they came until all of them are looked at, then all that are right are taken in, in one act that can
// be taken back. The look is the act itself, rolled back: it can show nothing else than what would happen.
import { priceFacts } from './facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { writeCsv } from '../../core/formats/csv'
import {
  BOOK_FIELDS,
  readEntryRow,
  writeEntryRow,
  type BookField,
  type EntryRecord,
} from '../../core/pricebook/bookTable'
import {
  importPlan,
  type ImportPlan,
  type KnownEntry,
  type PlannedRow,
} from '../../core/pricebook/importPlan'
import type { PriceSet } from '../../core/pricebook/reprice'
import { insideHours } from '../../core/pricebook/insideHours'
import { DAY } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { Raw } from '../http/route'
import { record } from '../http/queries'
import { endProgress, progressNow, tellProgress } from '../jobs/progress'
import { taxClasses } from '../settings/queries'
import { changeBook, shapeChanges, undoPrices, type Change } from './changes'
import {
  allPartsInside,
  bookStamp,
  fullEntries,
  lockBook,
  putEntries,
  setPartsInside,
  setRetired,
  type EntryFacts,
  type FullEntry,
} from './queries'
import {
  backToSavepoint,
  before,
  type FullEntryBefore,
  deleteEntries,
  keepBefore,
  keepMeaning,
  meaningOf,
  priceImportById,
  priceImports,
  putImport,
  savepoint,
  setImportState,
  stageRows,
  stagedRows,
  sweepStaged,
  unstage,
  usedEntries,
  versionsOf,
  type ImportRow,
} from './imports.queries'

const MOST = 50_000
export const importProgress = (ctx: Ctx, id: string): Promise<Answer<'importProgress'>> =>
  progressNow(ctx.tx, id)

export async function stagePrices(
  ctx: Ctx,
  id: string,
  body: Body<'stagePrices'>,
): Promise<Answer<'stagePrices'>> {
  const earlier = await priceImportById(ctx.tx, id, true)
  if (earlier && earlier.state !== 'waiting')
    throw conflict('taken_already', 'This list has been taken in already.')
  const meant = body.columns.filter(Boolean)
  if (new Set(meant).size !== meant.length)
    throw invalid('columns', 'Two columns have the same meaning.')
  if (!meant.includes('code') && !meant.includes('part_number'))
    throw invalid('columns', 'Say which column holds the code or the part number.')
  if (!meant.includes('code') && !body.supplier && !meant.includes('supplier'))
    throw invalid('supplier', 'Say whose list it is: part numbers are a supplier’s own.')
  if (body.rows.some((r) => r.row > MOST))
    throw invalid('rows', `A list may have ${MOST} rows. Divide it into several.`)
  if (!earlier) await sweepStaged(ctx.tx, ctx.now - DAY, id)
  await putImport(ctx.tx, {
    id,
    fileName: body.fileName,
    supplier: body.supplier,
    columns: body.columns,
    by: signedIn(ctx).id,
    at: ctx.now,
  })
  await stageRows(ctx.tx, id, body.rows)
  await keepMeaning(
    ctx.tx,
    sourceOf(body),
    Object.fromEntries(body.head.map((h, i) => [h, body.columns[i] ?? null])),
  )
  return { ok: true }
}
/** A list is known again by its supplier, or else by its headings. */
const sourceOf = (s: { supplier: string; head: string[] }) =>
  (s.supplier ? `supplier ${s.supplier}` : `head ${s.head.join('|')}`).slice(0, 160)
export const columnMeaning = async (
  ctx: Ctx,
  body: Body<'columnMeaning'>,
): Promise<Answer<'columnMeaning'>> => {
  const known = await meaningOf(ctx.tx, sourceOf(body))
  return { known: known !== null, columns: body.head.map((h) => known?.[h] ?? null) }
}
type Options = Body<'lookAtPrices'>
interface Taken {
  plan: ImportPlan
  rows: Change[]
  touched: { entryId: string; was: FullEntryBefore | null }[]
}
async function known(ctx: Ctx): Promise<{
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
async function takeIn(ctx: Ctx, list: ImportRow, options: Options): Promise<Taken> {
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
function countsOf(plan: ImportPlan): Answer<'takePrices'>['counts'] {
  const count = (state: PlannedRow['state']) => plan.rows.filter((r) => r.state === state).length
  return {
    new: count('new'),
    changed: count('changed'),
    same: count('same'),
    wrong: count('wrong'),
    vanished: plan.vanished.length,
  }
}
async function waitingList(ctx: Ctx, id: string): Promise<ImportRow> {
  const list = await priceImportById(ctx.tx, id, true)
  if (!list) throw notFound('price list')
  return list
}
const SHOWN = 300
export async function lookAtPrices(
  ctx: Ctx,
  id: string,
  options: Options,
): Promise<Answer<'lookAtPrices'>> {
  const list = await waitingList(ctx, id)
  if (list.state !== 'waiting')
    throw conflict('taken_already', 'This list has been taken in already.')
  await lockBook(ctx.tx)
  const stamp = await bookStamp(ctx.tx)
  await savepoint(ctx.tx)
  try {
    const { plan, rows } = await takeIn(ctx, list, options)
    const row = (r: PlannedRow) => ({
      row: r.row,
      state: r.state,
      code: r.code,
      name: r.name,
      what:
        r.state === 'wrong'
          ? r.problems
              .map((p) => `${p.field.replaceAll('_', ' ')}: ${p.message}`)
              .join(' ')
              .slice(0, 500)
          : r.changed.map((c) => c.replace(/[A-Z]/g, (l) => ` ${l.toLowerCase()}`)).join(', '),
    })
    const of = (state: PlannedRow['state']) =>
      plan.rows
        .filter((r) => r.state === state)
        .slice(0, SHOWN)
        .map(row)
    return {
      stamp,
      counts: countsOf(plan),
      wrong: of('wrong'),
      new: of('new'),
      changed: of('changed'),
      vanished: plan.vanished
        .slice(0, SHOWN)
        .map((e) => ({ id: e.id, code: e.code, name: e.name })),
      prices: await shapeChanges(ctx, rows),
    }
  } finally {
    await backToSavepoint(ctx.tx)
    endProgress(id)
  }
}
export async function takePrices(
  ctx: Ctx,
  id: string,
  body: Body<'takePrices'>,
): Promise<Answer<'takePrices'>> {
  await lockBook(ctx.tx)
  const list = await waitingList(ctx, id)
  if (list.state !== 'waiting') return shape(list)
  if ((await bookStamp(ctx.tx)) !== body.stamp)
    throw conflict(
      'stale',
      'Somebody changed the price book since you looked at this. Look at it again; nothing was taken in.',
    )
  try {
    const { plan, touched } = await takeIn(ctx, list, body)
    const counts = countsOf(plan)
    if (!touched.length) throw conflict('nothing', 'This list changes nothing in the price book.')
    const versions = await versionsOf(
      ctx.tx,
      touched.map((t) => t.entryId),
    )
    await keepBefore(
      ctx.tx,
      id,
      touched.map((t) => ({ ...t, version: versions.get(t.entryId)! })),
    )
    await unstage(ctx.tx, id)
    await setImportState(ctx.tx, id, 'taken', counts)
    await record(ctx, {
      subject: 'prices',
      id,
      fact: priceFacts.listTaken({
        file: list.fileName,
        new: counts.new,
        changed: counts.changed,
        wrong: counts.wrong,
      }),
    })
    return shape({ ...list, state: 'taken', counts })
  } finally {
    endProgress(id)
  }
}
const shape = (i: ImportRow): Answer<'takePrices'> => ({
  id: i.id,
  fileName: i.fileName,
  supplier: i.supplier,
  state: i.state,
  counts: { new: 0, changed: 0, same: 0, wrong: 0, vanished: 0, ...i.counts },
  madeBy: i.madeBy,
  madeAt: i.madeAt,
})
export const listPriceImports = async (ctx: Ctx): Promise<Answer<'priceImports'>> => ({
  items: (await priceImports(ctx.tx)).map(shape),
})
/** Takes a list back: what it changed is as it was, what it made is gone, or retired where it has been used. What somebody changed since stays. */
export async function undoPriceImport(ctx: Ctx, id: string): Promise<Answer<'undoPriceImport'>> {
  await lockBook(ctx.tx)
  const list = await waitingList(ctx, id)
  if (list.state === 'undone') return { list: shape(list), left: 0 }
  if (list.state === 'waiting') throw conflict('not_taken', 'This list was not taken in.')
  const rows = await before(ctx.tx, id)
  const untouched = rows.filter((r) => r.now === r.version)
  await undoPrices(ctx, id)
  const old = untouched.flatMap((r) => r.was ?? [])
  const made = untouched.filter((r) => !r.was).map((r) => r.entryId)
  await putEntries(
    ctx.tx,
    old.map(({ entry: e }) => ({
      id: e.id,
      facts: e,
      prices: { cost: e.cost, price: e.price, furtherPrice: e.furtherPrice, pricing: e.pricing },
    })),
  )
  await setPartsInside(
    ctx.tx,
    old.map((o) => o.entry.id),
    old.flatMap((o) => o.inside.map((p) => ({ entryId: o.entry.id, ...p }))),
  )
  // Inside something that this list made it is of no use to anybody: those go together.
  await setPartsInside(ctx.tx, made, [])
  const used = await usedEntries(ctx.tx, made)
  await setRetired(
    ctx.tx,
    made.filter((m) => used.has(m)),
    true,
  )
  await deleteEntries(
    ctx.tx,
    made.filter((m) => !used.has(m)),
  )
  await setImportState(ctx.tx, id, 'undone', null)
  const fact = priceFacts.listTakenBack({ file: list.fileName })
  await record(ctx, { subject: 'prices', id, fact })
  return { list: shape({ ...list, state: 'undone' }), left: rows.length - untouched.length }
}
/** The whole book as a file that can be taken in again, entry for entry. */
export async function bookCsv(ctx: Ctx): Promise<Raw> {
  const { entries } = await known(ctx)
  const seesCost = signedIn(ctx).seesCost
  const fields = BOOK_FIELDS.map((f, i) => ({ f, i })).filter(({ f }) => seesCost || f !== 'cost')
  return new Raw(
    'text/csv; charset=utf-8',
    writeCsv([
      fields.map(({ f }) => f),
      ...entries.map((e) => {
        const row = writeEntryRow(e)
        return fields.map(({ i }) => row[i]!)
      }),
    ]),
    'price-book.csv',
  )
}
