import { Decimal, type DecimalInput } from '../money/decimal'
import { roundToMinor } from '../money/roundToMinor'
import { minorToDecimal } from '../money/formatMinor'

export interface PricedLine {
  quantity: DecimalInput
  /** major units, up to four decimals */
  unitPrice: DecimalInput
  /** a fraction as a decimal string, '0.15' for 15 % */
  discountRate?: string | null
  discountMinor?: number | null
}

/**
 * Net amount of a line: round(quantity × unit price) less its discount, an amount or round(rate × that).
 * @returns minor units
 * @example lineNet({ quantity: '5', unitPrice: '55.00' }, 'USD') // 27500
 * Source: common practice of the trade; BT-131 of EN 16931-1 is built the same way.
 */
export function lineNet(line: PricedLine, currency: string): number {
  const gross = roundToMinor(new Decimal(line.quantity).times(line.unitPrice), currency)
  const byRate = line.discountRate
    ? roundToMinor(new Decimal(minorToDecimal(gross, currency)).times(line.discountRate), currency)
    : 0
  return gross - byRate - (line.discountMinor ?? 0)
}
