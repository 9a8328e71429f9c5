import { currencyExponent } from '../money/currencyExponent'

/** How a company's prices end: as they come, whole, or with an ending in minor units (95 for .95). */
export type PriceRounding =
  { kind: 'none' } | { kind: 'whole' } | { kind: 'ending'; ending: number }

/**
 * A price in minor units, up to the next one that ends as the company wants. A currency without minor units has nothing to round.
 * @example roundedUp(31580, { kind: 'ending', ending: 95 }, 'USD') // 31595
 * @example roundedUp(31596, { kind: 'ending', ending: 95 }, 'USD') // 31695
 * Source: common practice of the trade.
 */
export function roundedUp(minor: number, rounding: PriceRounding, currency: string): number {
  const whole = 10 ** currencyExponent(currency)
  if (rounding.kind === 'none' || whole === 1) return minor
  const ending = rounding.kind === 'whole' ? 0 : rounding.ending
  return Math.ceil((minor - ending) / whole) * whole + ending
}
