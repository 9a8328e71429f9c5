import { Decimal, type DecimalInput } from '../money/decimal'
import { roundToMinor } from '../money/roundToMinor'
import { InvalidValue } from '../errors/InvalidValue'

/** From this cost (major units) upward, cost is multiplied by this. */
export interface MarkupTier {
  fromCost: string
  multiplier: string
}

/**
 * Selling price of a part, minor units: round(cost × multiplier of its cost tier).
 * The tier is the one with the highest `fromCost` not above the cost; below all of them the lowest applies.
 * @throws InvalidValue without tiers
 * @example partPrice('134.95', [{ fromCost: '0', multiplier: '1.5' }], 'USD') // 20243
 * Source: common practice of the trade.
 */
export function partPrice(
  cost: DecimalInput,
  tiers: readonly MarkupTier[],
  currency: string,
): number {
  return roundToMinor(new Decimal(cost).times(tierOf(cost, tiers).tier.multiplier), currency)
}
/** The tier that a cost falls into, and the one above it. @throws InvalidValue without tiers @example tierOf('50', tiers).tier.multiplier // '2' */
export function tierOf(
  cost: DecimalInput,
  tiers: readonly MarkupTier[],
): { tier: MarkupTier; next: MarkupTier | null } {
  if (tiers.length === 0) throw new InvalidValue('there is no markup tier')
  const sorted = inOrder(tiers)
  const at = Math.max(
    0,
    sorted.findLastIndex((t) => t.from.lte(cost)),
  )
  return { tier: sorted[at]!.tier, next: sorted[at + 1]?.tier ?? null }
}
/** Tiers are put in order once, not once for each of twenty thousand parts. */
const ordered = new WeakMap<readonly MarkupTier[], { tier: MarkupTier; from: Decimal }[]>()
function inOrder(tiers: readonly MarkupTier[]): { tier: MarkupTier; from: Decimal }[] {
  const known =
    ordered.get(tiers) ??
    tiers
      .map((tier) => ({ tier, from: new Decimal(tier.fromCost) }))
      .sort((a, b) => a.from.cmp(b.from))
  ordered.set(tiers, known)
  return known
}
