import { Decimal } from '../money/decimal'

/**
 * Margin as a fraction of the net, four decimals; null when there is no net to divide by.
 * @example margin(10000, 5000) // 0.5
 * Source: common practice of the trade: (net − cost) / net.
 */
export function margin(netMinor: number, costMinor: number): number | null {
  return netMinor === 0
    ? null
    : new Decimal(netMinor).minus(costMinor).div(netMinor).toDecimalPlaces(4).toNumber()
}

/**
 * Markup as a fraction of the cost, four decimals; null without a cost. A 50 % markup is a margin of 33.33 %.
 * @example markup(10000, 5000) // 1
 * Source: common practice of the trade: (net − cost) / cost.
 */
export function markup(netMinor: number, costMinor: number): number | null {
  return costMinor === 0
    ? null
    : new Decimal(netMinor).minus(costMinor).div(costMinor).toDecimalPlaces(4).toNumber()
}
