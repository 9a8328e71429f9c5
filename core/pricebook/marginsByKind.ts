import { margin } from '../documents/margin'
import { Decimal } from '../money/decimal'
import type { EntryKind } from './kinds'

/** What of an entry makes its margin, in minor units. */
export interface PricedEntry {
  kind: EntryKind
  priceMinor: number
  /** what it costs us, its hours included */
  costMinor: number
}
export interface KindMargins {
  kind: EntryKind
  entries: number
  /** on average over the entries, as a fraction with four decimals; null where none has a price */
  mean: number | null
  /** of the entry that leaves least */
  lowest: number | null
  /** how many cost more than they bring */
  atLoss: number
}

/**
 * How the margins of a book spread, kind by kind, in the order in which the kinds first come. Entries without
 * a price have no margin: they count as entries and for nothing else.
 * @example
 * marginsByKind([{ kind: 'part', priceMinor: 200, costMinor: 100 }, { kind: 'part', priceMinor: 100, costMinor: 110 }])
 * // [{ kind: 'part', entries: 2, mean: 0.2, lowest: -0.1, atLoss: 1 }]
 * Source: common practice of the trade: (net − cost) / net.
 */
export function marginsByKind(entries: readonly PricedEntry[]): KindMargins[] {
  const kinds = new Map<EntryKind, PricedEntry[]>()
  for (const entry of entries) kinds.set(entry.kind, [...(kinds.get(entry.kind) ?? []), entry])
  return [...kinds].map(([kind, all]) => {
    const margins = all.flatMap((e) => margin(e.priceMinor, e.costMinor) ?? [])
    return {
      kind,
      entries: all.length,
      mean: meanOf(margins),
      lowest: margins.length ? Math.min(...margins) : null,
      atLoss: margins.filter((m) => m < 0).length,
    }
  })
}
const meanOf = (fractions: readonly number[]): number | null =>
  fractions.length
    ? Decimal.sum(...fractions)
        .div(fractions.length)
        .toDecimalPlaces(4)
        .toNumber()
    : null
