import { currencyExponent } from './currencyExponent'
import { Decimal, type DecimalInput } from './decimal'
import { InvalidValue } from '../errors/InvalidValue'

/**
 * A decimal amount in whole minor units, ties rounded away from zero.
 * @param amount in major units (dollars)
 * @returns whole minor units (cents), a safe integer
 * @throws InvalidValue when the amount is not finite or has more than 15 digits
 * @example roundToMinor('202.425', 'USD') // 20243
 * Source: ISO 4217 for the exponent; rounding half away from zero is the trade's (half-even would give 202.42).
 */
export function roundToMinor(amount: DecimalInput, currency: string): number {
  const minor = new Decimal(amount)
    .times(TENS[currencyExponent(currency)]!)
    .toDecimalPlaces(0, Decimal.ROUND_HALF_UP)
  const value = minor.toNumber()
  if (!Number.isSafeInteger(value)) throw new InvalidValue('amount out of range')
  return value === 0 ? 0 : value
}
/** Ten to the exponent of a currency; ISO 4217 knows up to four. */
const TENS = [1, 10, 100, 1000, 10_000]
