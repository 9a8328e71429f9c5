// What a change of prices looks like, row by row.
import { sum } from 'd3'
import { margin } from '../../core/documents/margin'
import { Decimal } from '../../core/money/decimal'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import type { PriceSet } from '../../core/pricebook/reprice'
import { plusMonths } from '../../core/time/zone'
import type { Answer } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { soldSince } from './usage.queries'
import type { Change } from './worked'

const MOST_ROWS = 500
type Shaped = Omit<Answer<'previewPrices'>, 'stamp' | 'count'>
type Row = Shaped['rows'][number]
type Sold = ReadonlyMap<string, Awaited<ReturnType<typeof soldSince>>[number]>
/** What all rows of one change are worked out by; a price is rounded once, since the same ones come again and again. */
class Reader {
  private readonly known = new Map<string, number>()
  constructor(
    private readonly currency: string,
    private readonly sold: Sold,
    private readonly seesCost: boolean,
  ) {}

  minor(price: string): number {
    const minor = this.known.get(price) ?? roundToMinor(price, this.currency)
    this.known.set(price, minor)
    return minor
  }
  say(set: PriceSet): Row['was'] {
    const price = (of: string) => minorToDecimal(this.minor(of), this.currency)
    return {
      ...set,
      cost: this.seesCost ? new Decimal(set.cost).toString() : null,
      price: price(set.price),
      furtherPrice: set.furtherPrice === null ? null : price(set.furtherPrice),
    }
  }
  /** What is left of the price before and after, for whoever may see it. */
  margins({ was, becomes, costs }: Change): [string, string] | null {
    if (!this.seesCost) return null
    const before = margin(this.minor(was.price), this.minor(costs[0]))
    const after = margin(this.minor(becomes.price), this.minor(costs[1]))
    return before === null || after === null ? null : [String(before), String(after)]
  }
  /** What a year's sales would have brought more, or less. */
  effect({ entry, was, becomes }: Change): number {
    const sold = this.sold.get(entry.id)
    if (!sold) return 0
    const more = new Decimal(becomes.price).minus(was.price).times(sold.quantity)
    return roundToMinor(more, this.currency)
  }
  /** What is asked about before it is kept. */
  odd({ follows, was, becomes, costs }: Change): Row['odd'] {
    const [before, after] = [this.minor(was.price), this.minor(becomes.price)]
    // Whole cents on both sides: more than two fifths, up or down.
    const far = !follows && before > 0 && 5 * Math.abs(after - before) > 2 * before
    const below = this.seesCost && after < this.minor(costs[1]) && before >= this.minor(costs[0])
    return [...(far ? ['far' as const] : []), ...(below ? ['below' as const] : [])]
  }
  row(r: Change): Row {
    const { entry, was, becomes } = r
    const left = this.seesCost
      ? {
          marginWas: textOf(margin(this.minor(was.price), this.minor(r.costs[0]))),
          marginBecomes: textOf(margin(this.minor(becomes.price), this.minor(r.costs[1]))),
        }
      : { marginWas: null, marginBecomes: null }
    const difference = this.minor(becomes.price) - this.minor(was.price)
    return {
      id: entry.id,
      code: entry.code,
      name: entry.name,
      kind: entry.kind,
      follows: r.follows,
      was: this.say(was),
      becomes: this.say(becomes),
      difference: minorToDecimal(difference, this.currency),
      ...left,
      sold: new Decimal(this.sold.get(entry.id)?.quantity ?? 0).toString(),
      effect: minorToDecimal(this.effect(r), this.currency),
      proposed: r.byRule,
      odd: this.odd(r),
    }
  }
}
const textOf = (n: number | null) => (n === null ? null : String(n))
/** What is asked before a change is kept that moves prices far, or beneath what they cost. */
function questionsOn(far: number, below: number): string[] {
  const move = far === 1 ? 'price moves' : 'prices move'
  const cost = below === 1 ? 'its' : 'their'
  return [
    ...(far ? [`${far} ${move} by more than 40 %. Is that meant?`] : []),
    ...(below ? [`${below} would be sold below ${cost} cost. Is that meant?`] : []),
  ]
}
/** What some changes of prices are and mean, entry by entry and together: the same for a rule, for a grid of prices and for a price list. */
export async function shapeChanges(ctx: Ctx, changes: readonly Change[]): Promise<Shaped> {
  const { currency } = ctx.company
  const lastYear = await soldSince(ctx.tx, plusMonths(ctx.today, -12))
  const sold = new Map(lastYear.map((s) => [s.entryId, s]))
  const reader = new Reader(currency, sold, signedIn(ctx).seesCost)
  const odd = new Map(changes.map((r) => [r, reader.odd(r)]))
  // What is asked about stands first, then what was chosen, then what follows from it.
  const rows = [...changes].sort(
    (a, b) =>
      Number(!odd.get(a)!.length) - Number(!odd.get(b)!.length) ||
      Number(a.follows) - Number(b.follows),
  )
  const count = (what: 'far' | 'below') => rows.filter((r) => odd.get(r)!.includes(what)).length
  return {
    changed: rows.filter((r) => !r.follows).length,
    follow: rows.filter((r) => r.follows).length,
    effect: toMoney(
      sum(rows, (r) => reader.effect(r)),
      currency,
    ),
    soldLines: sum(rows, (r) => sold.get(r.entry.id)?.lines),
    margins: rows.flatMap((r) => {
      const both = reader.margins(r)
      return both ? [{ was: both[0], becomes: both[1] }] : []
    }),
    rows: rows.slice(0, MOST_ROWS).map((r) => reader.row(r)),
    questions: questionsOn(count('far'), count('below')),
  }
}
