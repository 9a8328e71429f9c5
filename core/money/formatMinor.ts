import { currencyExponent } from './currencyExponent'
import { Decimal } from './decimal'
import { InvalidValue } from '../errors/InvalidValue'

/** Money on the wire: a decimal string and its currency, never a float. */
export interface Money {
  amount: string
  currency: string
}

/** Minor units as a plain decimal string. @example minorToDecimal(33835, 'USD') // '338.35' */
export function minorToDecimal(minor: number, currency: string): string {
  const exponent = currencyExponent(currency)
  // Whole numbers only: the sign is set by writing, which is exact and needs no arithmetic.
  const digits = String(Math.abs(minor)).padStart(exponent + 1, '0')
  const text = exponent ? `${digits.slice(0, -exponent)}.${digits.slice(-exponent)}` : digits
  return minor < 0 ? `-${text}` : text
}

/** Minor units as wire money. @example toMoney(33835, 'USD') // { amount: '338.35', currency: 'USD' } */
export const toMoney = (minor: number, currency: string): Money => ({
  amount: minorToDecimal(minor, currency),
  currency,
})

/**
 * A typed or sent decimal as minor units; more decimals than the currency has are refused, not rounded.
 * @throws InvalidValue with a sentence that can be shown
 * @example decimalToMinor('100.00', 'USD') // 10000
 */
export function decimalToMinor(amount: string, currency: string): number {
  if (!/^-?\d{1,13}(\.\d+)?$/.test(amount.trim()))
    throw new InvalidValue('Write the amount as a number, for example 100.00.')
  const exponent = currencyExponent(currency)
  const decimal = new Decimal(amount.trim())
  if (decimal.decimalPlaces() > exponent)
    throw new InvalidValue(`${currency} has ${exponent} decimals; ${amount} has more.`)
  return decimal.times(new Decimal(10).pow(exponent)).toNumber()
}
