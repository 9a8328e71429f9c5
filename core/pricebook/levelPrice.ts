import type { LineKind } from './kinds'
import { Decimal } from '../money/decimal'
import { roundToMinor } from '../money/roundToMinor'
import { minorToDecimal } from '../money/formatMinor'

/** What a customer pays for the same entry: a fraction off for each kind of line. */
export interface PriceLevel {
  id: string
  name: string
  off: Partial<Record<LineKind, string>>
}

/**
 * What a price level takes off a line, minor units, rounded for each line.
 * @example levelSaving(52005, 'task', agreement15) // 7801
 * Source: common practice of the trade: 15 % off 520.05 is 78.01, leaving 442.04.
 */
export function levelSaving(
  netMinor: number,
  kind: LineKind,
  level: PriceLevel | null,
  currency = 'USD',
): number {
  const off = level?.off[kind]
  return off
    ? roundToMinor(new Decimal(minorToDecimal(netMinor, currency)).times(off), currency)
    : 0
}
