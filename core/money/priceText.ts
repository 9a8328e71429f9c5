import { Decimal } from './decimal'

/**
 * A price as it is shown and typed, major units: at least two decimals, and those beyond that say something.
 * @example priceText('128.0000') // '128.00'
 * @example priceText('0.035') // '0.035'
 */
export function priceText(price: string): string {
  const p = new Decimal(price)
  return p.toFixed(Math.max(2, p.decimalPlaces()))
}
