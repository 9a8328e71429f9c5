// Changes of prices as acts: worked out, looked at, made from a day on, taken back. An entry that is edited, new rules and a repricing all go this one way,
// so that what follows from a price (a task from its parts and its labour) always follows, and each change has its history.
import { priceFacts } from './facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { margin } from '../../core/documents/margin'
import { hourCosts, labourCost } from '../../core/pricebook/entryCost'
import { Decimal } from '../../core/money/decimal'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { ruled, wished, type PriceSet, type RepriceRule } from '../../core/pricebook/reprice'
import { inCategory } from '../../core/pricebook/inCategory'
import { oddPercent } from '../../core/pricebook/oddPercent'
import type { PricedEntry } from '../../core/pricebook/explainPrice'
import { plusMonths } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import {
  allPartsInside,
  batchById,
  batches,
  bookStamp,
  dueBatches,
  historyOfBatch,
  insertBatch,
  insertHistory,
  lockBook,
  pricesNow,
  putMarkupRules,
  putPricing,
  rulesBefore,
  rulesChangedSince,
  setBatchState,
  setPrices,
  soldSince,
  everyEntry,
  type BatchRow,
} from './queries'
import { asPriced, rulesOf } from './rules'

/** Kinds in the order in which they stand on each other; whatever is not named stands on nothing. */
const STANDS_ON: readonly string[] = ['task', 'assembly']

type Entry = Awaited<ReturnType<typeof everyEntry>>[number]
/** `byRule`: what the rule would make of a new cost, where the price is fixed and stays; `costs`: what it costs us with its labour, before and after */
export interface Change {
  entry: Entry
  was: PriceSet
  becomes: PriceSet
  costs: [string, string]
  follows: boolean
  byRule: string | null
}
const setOf = (e: Entry): PriceSet => ({
  cost: e.cost,
  price: e.price,
  furtherPrice: e.furtherPrice,
  pricing: e.pricing,
})
const equal = (a: string | null, b: string | null) =>
  a === b || (a !== null && b !== null && new Decimal(a).eq(b))
const same = (a: PriceSet, b: PriceSet) =>
  a.pricing === b.pricing &&
  equal(a.cost, b.cost) &&
  equal(a.price, b.price) &&
  equal(a.furtherPrice, b.furtherPrice)

type Inside = Awaited<ReturnType<typeof allPartsInside>>
function partsByEntry(inside: Inside): Map<string, Inside> {
  const by = new Map<string, Inside>()
  for (const p of inside) {
    const own = by.get(p.entryId)
    if (own) own.push(p)
    else by.set(p.entryId, [p])
  }
  return by
}
/** All that changes when some entries take these prices: they, and the tasks whose parts or labour they are. */
export async function worked(
  ctx: Ctx,
  changes: ReadonlyMap<string, PriceSet>,
  book?: readonly Entry[],
): Promise<Change[]> {
  const [rules, entries, inside] = [
    await rulesOf(ctx),
    book ?? (await everyEntry(ctx.tx)),
    await allPartsInside(ctx.tx),
  ]
  const byId = new Map(entries.map((e) => [e.id, e]))
  const partsOf = partsByEntry(inside)
  const next = new Map<string, PriceSet>()
  const priceOf = (id: string) => next.get(id)?.price ?? byId.get(id)!.price
  const priced = (e: Entry): PricedEntry => {
    const labour = e.labourId ? byId.get(e.labourId) : undefined
    return asPriced(
      { ...e, ...next.get(e.id) },
      labour ? { name: labour.name, price: priceOf(labour.id) } : null,
      (partsOf.get(e.id) ?? []).map((p) => {
        const of = byId.get(p.partId)!
        return {
          name: of.name,
          kind: of.kind,
          quantity: p.quantity,
          ...(next.get(of.id) ?? setOf(of)),
        }
      }),
    )
  }
  for (const [id, set] of changes) next.set(id, set)
  // Tasks stand on parts and labour, assemblies on all of them: what others stand on comes first.
  const stands = (e: Entry) => STANDS_ON.indexOf(e.kind)
  for (const e of [...entries].sort((a, b) => stands(a) - stands(b))) {
    // What is retired is not sold: it follows nothing, and changes only where it is meant itself.
    if (e.retired && !changes.has(e.id)) continue
    const now = next.get(e.id) ?? setOf(e)
    // A fixed price stays, and what stands inside has its cost all the same.
    if (now.pricing === 'rule' || partsOf.has(e.id))
      next.set(e.id, ruled(priced(e), rules, ctx.company.currency))
  }
  const rates = entries.filter((e) => e.kind === 'labour')
  const [hourWas, hourBecomes] = [
    hourCosts(rates),
    hourCosts(rates.map((l) => ({ ...l, ...next.get(l.id) }))),
  ]
  const withLabour = (e: Entry, set: PriceSet, hourCost: string) =>
    new Decimal(set.cost).plus(labourCost(e, hourCost)).toString()
  return entries.flatMap((entry) => {
    const was = setOf(entry)
    const becomes = next.get(entry.id)
    if (!becomes || same(was, becomes)) return []
    const rule =
      becomes.pricing === 'fixed' && !new Decimal(was.cost).eq(becomes.cost)
        ? ruled({ ...priced(entry), pricing: 'rule' }, rules, ctx.company.currency)
        : null
    const costs: [string, string] = [
      withLabour(entry, was, hourWas(entry.labourId)),
      withLabour(entry, becomes, hourBecomes(entry.labourId)),
    ]
    return [
      {
        entry,
        was,
        becomes,
        costs,
        follows: !changes.has(entry.id),
        byRule:
          rule?.pricing === 'rule' && !new Decimal(rule.price).eq(becomes.price)
            ? rule.price
            : null,
      },
    ]
  })
}
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
const MOST_ROWS = 500
/** What some changes of prices are and mean, entry by entry and together: the same for a rule, for a grid of prices and for a price list. */
export async function shapeChanges(
  ctx: Ctx,
  changes: readonly Change[],
): Promise<Omit<Answer<'previewPrices'>, 'stamp' | 'count'>> {
  const { currency } = ctx.company
  const sold = new Map(
    (await soldSince(ctx.tx, plusMonths(ctx.today, -12))).map((s) => [s.entryId, s]),
  )
  const seesCost = signedIn(ctx).seesCost
  const known = new Map<string, number>()
  const minor = (price: string) => {
    const got = known.get(price) ?? roundToMinor(price, currency)
    known.set(price, got)
    return got
  }
  const say = (s: PriceSet) => ({
    ...s,
    cost: seesCost ? new Decimal(s.cost).toString() : null,
    price: minorToDecimal(minor(s.price), currency),
    furtherPrice: s.furtherPrice === null ? null : minorToDecimal(minor(s.furtherPrice), currency),
  })
  const part = (s: PriceSet, cost: string) =>
    seesCost ? margin(minor(s.price), minor(cost)) : null
  const effect = (r: Change) =>
    sold.has(r.entry.id)
      ? roundToMinor(
          new Decimal(r.becomes.price).minus(r.was.price).times(sold.get(r.entry.id)!.quantity),
          currency,
        )
      : 0
  const text = (n: number | null) => (n === null ? null : String(n))
  const oddOf = (r: Change) => [
    // Whole cents on both sides: more than two fifths, up or down.
    ...(!r.follows &&
    minor(r.was.price) > 0 &&
    5 * Math.abs(minor(r.becomes.price) - minor(r.was.price)) > 2 * minor(r.was.price)
      ? ['far' as const]
      : []),
    ...(seesCost &&
    minor(r.becomes.price) < minor(r.costs[1]) &&
    minor(r.was.price) >= minor(r.costs[0])
      ? ['below' as const]
      : []),
  ]
  const odd = new Map(changes.map((r) => [r, oddOf(r)]))
  // What is asked about stands first, then what was chosen, then what follows from it.
  const rows = [...changes].sort(
    (a, b) =>
      Number(!odd.get(a)!.length) - Number(!odd.get(b)!.length) ||
      Number(a.follows) - Number(b.follows),
  )
  const count = (what: 'far' | 'below') => rows.filter((r) => odd.get(r)!.includes(what)).length
  const [far, below] = [count('far'), count('below')]
  return {
    changed: rows.filter((r) => !r.follows).length,
    follow: rows.filter((r) => r.follows).length,
    effect: toMoney(
      rows.reduce((n, r) => n + effect(r), 0),
      currency,
    ),
    soldLines: rows.reduce((n, r) => n + (sold.get(r.entry.id)?.lines ?? 0), 0),
    margins: rows.flatMap((r) => {
      const [was, becomes] = [part(r.was, r.costs[0]), part(r.becomes, r.costs[1])]
      return was === null || becomes === null
        ? []
        : [{ was: String(was), becomes: String(becomes) }]
    }),
    rows: rows.slice(0, MOST_ROWS).map((r) => ({
      id: r.entry.id,
      code: r.entry.code,
      name: r.entry.name,
      kind: r.entry.kind,
      follows: r.follows,
      was: say(r.was),
      becomes: say(r.becomes),
      difference: minorToDecimal(minor(r.becomes.price) - minor(r.was.price), currency),
      marginWas: text(part(r.was, r.costs[0])),
      marginBecomes: text(part(r.becomes, r.costs[1])),
      sold: new Decimal(sold.get(r.entry.id)?.quantity ?? 0).toString(),
      effect: minorToDecimal(effect(r), currency),
      proposed: r.byRule,
      odd: odd.get(r)!,
    })),
    questions: [
      ...(far
        ? [`${far} ${far === 1 ? 'price moves' : 'prices move'} by more than 40 %. Is that meant?`]
        : []),
      ...(below
        ? [`${below} would be sold below ${below === 1 ? 'its' : 'their'} cost. Is that meant?`]
        : []),
    ],
  }
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
