import { Decimal } from '../money/decimal'
import { minorToDecimal } from '../money/formatMinor'
import { readAmount } from '../money/readAmount'
import { roundToMinor } from '../money/roundToMinor'

/**
 * What somebody takes off, as it is written: an amount, or a percentage of what it is taken off. Minor units, rounded half away from zero.
 * Null where it is neither, or more than 100 %; whether an amount is too large is for the caller to say.
 * @example discountOf('10 %', 8955, 'USD') // 896
 * @example discountOf('12.50', 8955, 'USD') // 1250
 * Source: common practice of the trade.
 */
export function discountOf(text: string, ofMinor: number, currency: string): number | null {
  const percent = /^\s*(\d{1,3}(?:\.\d{1,4})?)\s*%\s*$/.exec(text)?.[1]
  if (percent !== undefined)
    return new Decimal(percent).gt(100)
      ? null
      : roundToMinor(
          new Decimal(minorToDecimal(ofMinor, currency)).times(percent).div(100),
          currency,
        )
  const amount = readAmount(text)
  return amount === null ? null : roundToMinor(amount, currency)
}
