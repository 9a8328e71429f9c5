// What a change of the book makes of every entry that stands on it.
import { group } from 'd3'
import { hourCosts, labourCost } from '../../core/pricebook/entryCost'
import { Decimal } from '../../core/money/decimal'
import { ruled, type PriceSet } from '../../core/pricebook/reprice'
import type { PricedEntry } from '../../core/pricebook/explainPrice'
import type { Ctx } from '../http/context'
import { everyEntry } from './queries'
import { allPartsInside } from './inside.queries'
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
/** The book with some prices of it changed: what is not named in `next` stands as it was. */
class ChangedBook {
  readonly next: Map<string, PriceSet>
  private readonly byId: ReadonlyMap<string, Entry>
  private readonly partsOf: ReadonlyMap<string, Inside>
  constructor(entries: readonly Entry[], inside: Inside, changes: ReadonlyMap<string, PriceSet>) {
    this.byId = new Map(entries.map((e) => [e.id, e]))
    this.partsOf = group(inside, (p) => p.entryId)
    this.next = new Map(changes)
  }
  setOf(e: Entry): PriceSet {
    return this.next.get(e.id) ?? setOf(e)
  }
  hasInside(e: Entry): boolean {
    return this.partsOf.has(e.id)
  }
  /** An entry with what it stands on, as both are now. */
  priced(e: Entry): PricedEntry {
    const labour = e.labourId ? this.byId.get(e.labourId) : undefined
    const parts = (this.partsOf.get(e.id) ?? []).map(({ partId, quantity }) => {
      const of = this.byId.get(partId)!
      return { name: of.name, kind: of.kind, quantity, ...this.setOf(of) }
    })
    return asPriced(
      { ...e, ...this.next.get(e.id) },
      labour ? { name: labour.name, price: this.setOf(labour).price } : null,
      parts,
    )
  }
}
/** All that changes when some entries take these prices: they, and the tasks whose parts or labour they are. */
export async function worked(
  ctx: Ctx,
  changes: ReadonlyMap<string, PriceSet>,
  given?: readonly Entry[],
): Promise<Change[]> {
  const { currency } = ctx.company
  const rules = await rulesOf(ctx)
  const entries = given ?? (await everyEntry(ctx.tx))
  const book = new ChangedBook(entries, await allPartsInside(ctx.tx), changes)
  // Tasks stand on parts and labour, assemblies on all of them: what others stand on comes first.
  const stands = (e: Entry) => STANDS_ON.indexOf(e.kind)
  for (const e of [...entries].sort((a, b) => stands(a) - stands(b))) {
    // What is retired is not sold: it follows nothing, and changes only where it is meant itself.
    if (e.retired && !changes.has(e.id)) continue
    // A fixed price stays, and what stands inside has its cost all the same.
    if (book.setOf(e).pricing === 'rule' || book.hasInside(e))
      book.next.set(e.id, ruled(book.priced(e), rules, currency))
  }
  const rates = entries.filter((e) => e.kind === 'labour')
  const hourWas = hourCosts(rates)
  const hourBecomes = hourCosts(rates.map((l) => ({ ...l, ...book.next.get(l.id) })))
  const withLabour = (e: Entry, set: PriceSet, hourCost: string) =>
    new Decimal(set.cost).plus(labourCost(e, hourCost)).toString()
  /** What the rule would make of a new cost, where the price is fixed and stays. */
  const byRule = (e: Entry, becomes: PriceSet): string | null => {
    if (becomes.pricing !== 'fixed' || new Decimal(e.cost).eq(becomes.cost)) return null
    const rule = ruled({ ...book.priced(e), pricing: 'rule' }, rules, currency)
    return rule.pricing === 'rule' && !equal(rule.price, becomes.price) ? rule.price : null
  }
  return entries.flatMap((entry): Change[] => {
    const was = setOf(entry)
    const becomes = book.next.get(entry.id)
    if (!becomes || same(was, becomes)) return []
    const costs: Change['costs'] = [
      withLabour(entry, was, hourWas(entry.labourId)),
      withLabour(entry, becomes, hourBecomes(entry.labourId)),
    ]
    const follows = !changes.has(entry.id)
    return [{ entry, was, becomes, costs, follows, byRule: byRule(entry, becomes) }]
  })
}
