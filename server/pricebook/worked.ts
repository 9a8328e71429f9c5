// What a change of the book makes of every entry that stands on it.
import { hourCosts, labourCost } from '../../core/pricebook/entryCost'
import { Decimal } from '../../core/money/decimal'
import { ruled, type PriceSet } from '../../core/pricebook/reprice'
import type { PricedEntry } from '../../core/pricebook/explainPrice'
import type { Ctx } from '../http/context'
import { allPartsInside, everyEntry } from './queries'
import { asPriced, rulesOf } from './rules'

/** Kinds in the order in which they stand on each other; whatever is not named stands on nothing. */
const STANDS_ON: readonly string[] = ['task', 'assembly']
export type Entry = Awaited<ReturnType<typeof everyEntry>>[number]
/** `byRule`: what the rule would make of a new cost, where the price is fixed and stays; `costs`: what it costs us with its labour, before and after */
export interface Change {
  entry: Entry
  was: PriceSet
  becomes: PriceSet
  costs: [string, string]
  follows: boolean
  byRule: string | null
}
export const setOf = (e: Entry): PriceSet => ({
  cost: e.cost,
  price: e.price,
  furtherPrice: e.furtherPrice,
  pricing: e.pricing,
})
const equal = (a: string | null, b: string | null) =>
  a === b || (a !== null && b !== null && new Decimal(a).eq(b))
export const same = (a: PriceSet, b: PriceSet) =>
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
