// Price lists from suppliers and the firm: staged, looked at, taken in, taken back.
import { priceFacts } from './facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import type { PlannedRow } from '../../core/pricebook/importPlan'
import { DAY } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { endProgress, progressNow } from '../jobs/progress'
import { shapeChanges } from './changeRows'
import { undoPrices } from './changes'
import { bookStamp, lockBook, putEntries } from './queries'
import { setPartsInside } from './inside.queries'
import { setRetired } from './usage.queries'
import {
  backToSavepoint,
  before,
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
  sweepStaged,
  unstage,
  usedEntries,
  versionsOf,
  type ImportRow,
} from './imports.queries'
import type { Options } from './takeIn'
import { takeIn, countsOf } from './takeIn'

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
