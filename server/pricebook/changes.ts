// Changes of prices in one act: looked at first, kept with what was before, taken back.
import { priceFacts } from './facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { wished, type PriceSet, type RepriceRule } from '../../core/pricebook/reprice'
import { inCategory } from '../../core/pricebook/inCategory'
import { oddPercent } from '../../core/pricebook/oddPercent'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import {
  batchById,
  batches,
  dueBatches,
  historyOfBatch,
  insertBatch,
  insertHistory,
  pricesNow,
  putMarkupRules,
  putPricing,
  rulesBefore,
  rulesChangedSince,
  setBatchState,
  setPrices,
  type BatchRow,
} from './pricing.queries'
import { bookStamp, lockBook, everyEntry } from './queries'
import type { Entry, Change } from './worked'
import { setOf, same, worked } from './worked'
import { shapeChanges } from './changeRows'

/**
 * Makes a change: at once when its day has come, else it waits for its day. `even` where it is kept as an act also when no price moves;
 * `fresh` are entries that this act made: they have no price before it, so no history.
 */
export async function changeBook(
  ctx: Ctx,
  act: {
    id: string
    title: string
    holdsFrom: string
    changes: ReadonlyMap<string, PriceSet>
    even?: boolean
    fresh?: ReadonlySet<string>
  },
): Promise<Change[]> {
  const all = await worked(ctx, act.changes)
  const rows = act.fresh ? all.filter((r) => !act.fresh!.has(r.entry.id)) : all
  if (!rows.length && !act.even) return rows
  const now = act.holdsFrom <= ctx.today
  await insertBatch(ctx.tx, {
    id: act.id,
    title: act.title,
    holdsFrom: act.holdsFrom,
    state: now ? 'applied' : 'waiting',
    by: signedIn(ctx).id,
    at: ctx.now,
  })
  if (rows.length)
    await insertHistory(
      ctx.tx,
      act.id,
      rows.map((r) => ({ entryId: r.entry.id, was: r.was, became: r.becomes, follows: r.follows })),
    )
  if (now)
    await setPrices(
      ctx.tx,
      all.map((r) => ({ id: r.entry.id, ...r.becomes })),
      act.holdsFrom,
    )
  await record(ctx, {
    subject: 'prices',
    id: act.id,
    fact: priceFacts.repriced({
      title: act.title,
      count: rows.length,
      from: now ? null : act.holdsFrom,
    }),
  })
  return rows
}
type Wish = Pick<
  Body<'previewPrices'>,
  'ids' | 'kind' | 'category' | 'supplier' | 'rule' | 'percent' | 'price' | 'each'
>
function ruleOf(wish: Wish): RepriceRule | null {
  if (wish.rule === 'each') return null
  if (wish.rule === 'by_rule') return { kind: 'by_rule' }
  if (wish.rule === 'set') {
    if (!wish.price) throw invalid('price', 'Say what the price is to be.')
    return { kind: 'set', price: wish.price }
  }
  if (!wish.percent) throw invalid('percent', 'Say by how many per cent.')
  if (new Decimal(wish.percent).lt(-100))
    throw invalid('percent', 'Prices cannot fall by more than 100 %.')
  return { kind: wish.rule, percent: wish.percent }
}
function wanted(ctx: Ctx, wish: Wish, entries: readonly Entry[]): Map<string, PriceSet> {
  const byId = new Map(entries.map((e) => [e.id, e]))
  const rule = ruleOf(wish)
  if (!rule) {
    return new Map(
      wish.each.map((c, i) => {
        const e = byId.get(c.id)
        if (!e) throw invalid(`each[${i}].id`, 'This entry is not in the price book any more.')
        // A price that is written is fixed; a cost that is written takes a price by rule along.
        const cost = c.cost === undefined || !signedIn(ctx).seesCost ? e.cost : c.cost
        return [
          c.id,
          {
            ...setOf(e),
            cost,
            ...(c.price === undefined ? {} : { price: c.price, pricing: 'fixed' as const }),
            ...(c.byRule ? { pricing: 'rule' as const } : {}),
          },
        ]
      }),
    )
  }
  const ids = new Set(wish.ids)
  const chosen = entries.filter(
    (e) =>
      !e.retired &&
      (ids.size
        ? ids.has(e.id)
        : (!wish.kind || e.kind === wish.kind) &&
          (!wish.category || inCategory(e.category, wish.category)) &&
          (!wish.supplier || e.supplier === wish.supplier)),
  )
  if (!ids.size && !wish.kind && !wish.category && !wish.supplier && rule.kind === 'set')
    throw invalid(
      'kind',
      'One price for the whole book is hardly meant. Choose a kind or a category.',
    )
  return new Map(chosen.map((e) => [e.id, wished(setOf(e), rule, ctx.company.currency)]))
}
export async function previewPrices(ctx: Ctx, wish: Wish): Promise<Answer<'previewPrices'>> {
  const stamp = await bookStamp(ctx.tx)
  const book = await everyEntry(ctx.tx)
  const changes = wanted(ctx, wish, book)
  const shown = await shapeChanges(ctx, await worked(ctx, changes, book))
  // A percentage that is odd itself is asked about once, not again for what it does.
  const odd =
    wish.percent && oddPercent(new Decimal(wish.percent).abs().div(100).toString())
      ? [`${wish.percent} % is unusual for prices. Is it meant?`]
      : []
  return {
    stamp,
    count: changes.size,
    ...shown,
    questions: odd.length
      ? [...odd, ...shown.questions.filter((q) => !q.includes('40 %'))]
      : shown.questions,
  }
}
export const shapeBatch = (b: BatchRow): Answer<'changePrices'> => ({
  id: b.id,
  title: b.title,
  holdsFrom: b.holdsFrom,
  state: b.state,
  madeBy: b.madeBy ?? '',
  madeAt: b.madeAt,
  entries: b.entries,
})
export async function changePrices(
  ctx: Ctx,
  body: Body<'changePrices'>,
): Promise<Answer<'changePrices'>> {
  await lockBook(ctx.tx)
  // Asked again by a phone or a press that was repeated: it was done.
  const done = await batchById(ctx.tx, body.id)
  if (done) return shapeBatch(done)
  if ((await bookStamp(ctx.tx)) !== body.stamp)
    throw conflict(
      'stale',
      'Somebody changed the price book since you looked at this. Look at the preview again; nothing was changed.',
    )
  const rows = await changeBook(ctx, {
    id: body.id,
    title: body.title || 'Prices changed',
    holdsFrom: body.holdsFrom ?? ctx.today,
    changes: wanted(ctx, body, await everyEntry(ctx.tx)),
  })
  if (!rows.length) throw conflict('nothing', 'This changes no price.')
  return shapeBatch((await batchById(ctx.tx, body.id))!)
}
export const priceChanges = async (ctx: Ctx): Promise<Answer<'priceChanges'>> => ({
  items: (await batches(ctx.tx)).map(shapeBatch),
})
/** Takes a change back: every price that still is as the change made it. What somebody changed again since stays, and is counted. */
export async function undoPrices(ctx: Ctx, id: string): Promise<Answer<'undoPrices'>> {
  await lockBook(ctx.tx)
  const batch = await batchById(ctx.tx, id)
  if (!batch) throw notFound('change of prices')
  if (batch.state === 'undone') return { batch: shapeBatch(batch), left: 0 }
  const rules = await rulesBefore(ctx.tx, id)
  if (rules) {
    // Prices that follow the rules must not be left following others than those that stand.
    if (await rulesChangedSince(ctx.tx, id))
      throw conflict('rules_changed', 'The rules were changed again since. Take that back first.')
    await putMarkupRules(ctx.tx, rules.markups)
    await putPricing(ctx.tx, rules.pricing)
  }
  let left = 0
  if (batch.state === 'applied') {
    const rows = await historyOfBatch(ctx.tx, id)
    const now = await pricesNow(
      ctx.tx,
      rows.map((r) => r.entryId),
    )
    const back = rows.filter((r) => same(now.get(r.entryId)!, r.became))
    await setPrices(
      ctx.tx,
      back.map((r) => ({ id: r.entryId, ...r.was })),
      ctx.today,
    )
    left = rows.length - back.length
  }
  await setBatchState(ctx.tx, id, 'undone')
  await record(ctx, { subject: 'prices', id, fact: priceFacts.takenBack({ title: batch.title }) })
  return { batch: shapeBatch((await batchById(ctx.tx, id))!), left }
}
/** Changes whose day has come. Asked before anything is priced, so that a price holds from its day's first minute. */
export async function applyDue(ctx: Ctx): Promise<void> {
  const due = await dueBatches(ctx.tx, ctx.today)
  if (!due.length) return
  await lockBook(ctx.tx)
  for (const { id } of due) {
    const batch = (await batchById(ctx.tx, id))!
    if (batch.state !== 'waiting') continue
    const rows = await historyOfBatch(ctx.tx, id)
    const now = await pricesNow(
      ctx.tx,
      rows.map((r) => r.entryId),
    )
    // What somebody changed by hand since it was decided is left as they put it.
    await setPrices(
      ctx.tx,
      rows
        .filter((r) => same(now.get(r.entryId)!, r.was))
        .map((r) => ({ id: r.entryId, ...r.became })),
      batch.holdsFrom,
    )
    await setBatchState(ctx.tx, id, 'applied')
    await record(ctx, { subject: 'prices', id, fact: priceFacts.holdsNow({ title: batch.title }) })
  }
}
