// How the book is used: what sells and for how much, how long tasks take in truth, what nobody sells, what is easily mistaken.
import { group } from 'd3'
import { priceFacts } from './facts'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { quotedAgainstActual } from '../../core/costing/quotedAgainstActual'
import { lookAlikes } from '../../core/pricebook/lookAlikes'
import { plusMonths } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { changeBook, shapeBatch } from './changes'
import { entriesById, lockBook } from './queries'
import { namesOf } from './names.queries'
import { allPartsInside } from './inside.queries'
import { batchById } from './pricing.queries'
import { setHours, setRetired, soldSince, usualPrices, workedByTask } from './usage.queries'

const SHOWN = 200
type Usage = Answer<'bookUsage'>
type Named = Awaited<ReturnType<typeof namesOf>>[number]
type Sold = Awaited<ReturnType<typeof soldSince>>[number]
type Say = (price: string) => string

/** What was sold, for how much, and what is usually asked for it; what brought most first. */
async function soldPart(
  ctx: Ctx,
  byId: ReadonlyMap<string, Named>,
  sold: readonly Sold[],
  say: Say,
): Promise<Usage['sold']> {
  const usual = await usualPrices(ctx.tx, plusMonths(ctx.today, -12))
  return sold
    .filter((s) => byId.has(s.entryId))
    .sort((a, b) => b.net - a.net)
    .slice(0, SHOWN)
    .map((s) => {
      const { id, code, name, kind, price } = byId.get(s.entryId)!
      return {
        id,
        code,
        name,
        kind,
        lines: s.lines,
        quantity: new Decimal(s.quantity).toString(),
        net: toMoney(s.net, ctx.company.currency),
        book: say(price),
        usual: say(usual.get(id) ?? price),
        last: s.last,
      }
    })
}
/** How long tasks take in truth; where other hours are proposed first. */
async function hoursPart(ctx: Ctx, byId: ReadonlyMap<string, Named>): Promise<Usage['hours']> {
  const since = plusMonths(ctx.today, -12)
  const worked = group(await workedByTask(ctx.tx, since), (w) => w.entryId)
  const tasks = await entriesById(ctx.tx, [...worked.keys()])
  return tasks
    .filter((e) => byId.has(e.id))
    .flatMap(({ id, code, name, seconds }) => {
      const took = worked.get(id)!.map((w) => w.seconds)
      const actual = quotedAgainstActual(took, seconds)
      return actual ? [{ id, code, name, actual }] : []
    })
    .sort(
      (a, b) =>
        Number(b.actual.proposedSeconds !== null) - Number(a.actual.proposedSeconds !== null) ||
        b.actual.of - a.actual.of,
    )
    .slice(0, SHOWN)
}
/** What nobody sells. A part is used where a task that has it inside is sold. */
async function dormantIn(ctx: Ctx, names: readonly Named[], sold: readonly Sold[]) {
  const used = new Set(sold.map((s) => s.entryId))
  for (const p of await allPartsInside(ctx.tx)) if (used.has(p.entryId)) used.add(p.partId)
  const kinds = ['task', 'part', 'assembly']
  return names.filter((e) => !used.has(e.id) && kinds.includes(e.kind))
}
export async function bookUsage(ctx: Ctx): Promise<Usage> {
  const { currency } = ctx.company
  const say: Say = (price) => minorToDecimal(roundToMinor(price, currency), currency)
  const names = await namesOf(ctx.tx)
  const byId = new Map(names.map((e) => [e.id, e]))
  const sold = await soldSince(ctx.tx, plusMonths(ctx.today, -12))
  const dormant = await dormantIn(ctx, names, sold)
  const alike = lookAlikes(names).slice(0, SHOWN)
  return {
    sold: await soldPart(ctx, byId, sold, say),
    hours: await hoursPart(ctx, byId),
    dormant: dormant.slice(0, SHOWN).map(({ id, code, name, category, price }) => ({
      id,
      code,
      name,
      category,
      price: say(price),
    })),
    dormantCount: dormant.length,
    alike: alike.map((ids) => ({
      entries: ids.map((of) => {
        const { id, code, name, price, last } = byId.get(of)!
        return { id, code, name, price: say(price), last }
      }),
    })),
  }
}
export async function retireEntries(
  ctx: Ctx,
  body: Body<'retireEntries'>,
): Promise<Answer<'retireEntries'>> {
  await lockBook(ctx.tx)
  const count = await setRetired(ctx.tx, body.ids, body.retired)
  if (count)
    await record(ctx, {
      subject: 'prices',
      id: body.ids[0]!,
      fact: (body.retired ? priceFacts.severalRetired : priceFacts.severalBroughtBack)({
        ids: body.ids.slice(0, 200),
        count,
      }),
    })
  return { count }
}
/** Hours as they were worked become those of the book; a further one keeps its share of them. Prices that follow the rule follow, in one act. */
export async function takeHours(ctx: Ctx, body: Body<'takeHours'>): Promise<Answer<'takeHours'>> {
  await lockBook(ctx.tx)
  const done = await batchById(ctx.tx, body.id)
  if (done) return shapeBatch(done)
  const known = new Map(
    (
      await entriesById(
        ctx.tx,
        body.entries.map((e) => e.id),
      )
    ).map((e) => [e.id, e]),
  )
  const rows = body.entries.map((b, i) => {
    const e = known.get(b.id)
    if (e?.kind !== 'task') throw invalid(`entries[${i}].id`, 'Only tasks have hours.')
    return {
      id: b.id,
      seconds: b.seconds,
      furtherSeconds: e.seconds
        ? Math.round((b.seconds * e.furtherSeconds) / e.seconds)
        : b.seconds,
    }
  })
  await setHours(ctx.tx, rows)
  await record(ctx, {
    subject: 'prices',
    id: body.id,
    fact: priceFacts.hoursTaken({
      hours: rows.map((r) => ({ id: r.id, from: known.get(r.id)!.seconds, to: r.seconds })),
    }),
  })
  await changeBook(ctx, {
    id: body.id,
    title: 'Hours as they were worked',
    holdsFrom: ctx.today,
    changes: new Map(),
    even: true,
  })
  const batch = await batchById(ctx.tx, body.id)
  if (!batch) throw conflict('nothing', 'This changes no hours.')
  return shapeBatch(batch)
}
