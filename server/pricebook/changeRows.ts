// What a change of prices looks like, row by row.
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
