import { Decimal, type DecimalInput } from '../money/decimal'
import { roundToMinor } from '../money/roundToMinor'
import { minorToDecimal } from '../money/formatMinor'

export interface TaskRecipe {
  /** seconds as the first task of a visit, and as a further one (setting up is done once) */
  secondsFirst: number
  secondsFurther: number
  labourRatePerHour: DecimalInput
  parts: readonly { quantity: DecimalInput, sellMinor: number }[]
  /** a fraction of labour and parts, e.g. '0.03' */
  sundriesRate?: string
  minimumMinor?: number
  /** up to the next whole, or the next amount with this ending in minor units (95 for .95) */
  rounding?: { kind: 'none' } | { kind: 'whole' } | { kind: 'ending', ending: number }
  /** replaces the computed price */
  fixedMinor?: number | null
}
export interface TaskPrice { labourMinor: number, partsMinor: number, sundriesMinor: number, roundingMinor: number, priceMinor: number }

/**
 * Flat-rate price of a task with the parts it is made of, in minor units; they sum to the price, except that a minimum
 * is booked under rounding and a fixed price shows as the difference there.
 * @param further true from the second task of a visit on
 * @example taskPrice(recipe, false, 'USD').priceMinor
 * Source: common practice of the trade.
 */
export function taskPrice(recipe: TaskRecipe, further: boolean, currency: string): TaskPrice {
  const hours = new Decimal(further ? recipe.secondsFurther : recipe.secondsFirst).div(3600)
  const labourMinor = roundToMinor(hours.times(recipe.labourRatePerHour), currency)
  const partsMinor = recipe.parts.reduce((sum, part) => sum + roundToMinor(new Decimal(minorToDecimal(part.sellMinor, currency)).times(part.quantity), currency), 0)
  const sundriesMinor = recipe.sundriesRate ? roundToMinor(new Decimal(minorToDecimal(labourMinor + partsMinor, currency)).times(recipe.sundriesRate), currency) : 0
  const sum = labourMinor + partsMinor + sundriesMinor
  const price = recipe.fixedMinor ?? Math.max(roundedUp(sum, recipe.rounding ?? { kind: 'none' }), recipe.minimumMinor ?? 0)
  return { labourMinor, partsMinor, sundriesMinor, roundingMinor: price - sum, priceMinor: price }
}

function roundedUp(minor: number, rounding: NonNullable<TaskRecipe['rounding']>): number {
  if (rounding.kind === 'none') return minor
  const ending = rounding.kind === 'whole' ? 0 : rounding.ending
  return Math.ceil((minor - ending) / 100) * 100 + ending
}

/**
 * Labour rate an hour must bring, major units with four decimals.
 * @param yearly costs in major units; `billedShare` and `targetMargin` are fractions
 * @throws RangeError when no hour is billed or the margin is 1 or more
 * @example labourRateNeeded({ wages: '300000', burden: '60000', overhead: '140000', paidHours: '10000', billedShare: '0.5', targetMargin: '0.2' }) // '125'
 * Source: common practice of the trade.
 */
export function labourRateNeeded(yearly: { wages: string, burden: string, overhead: string, paidHours: string, billedShare: string, targetMargin: string }): string {
  const billed = new Decimal(yearly.paidHours).times(yearly.billedShare)
  if (billed.lte(0) || new Decimal(yearly.targetMargin).gte(1)) throw new RangeError('Hours billed must be above zero and the margin below 100 %.')
  return new Decimal(yearly.wages).plus(yearly.burden).plus(yearly.overhead).div(billed).div(new Decimal(1).minus(yearly.targetMargin)).toDecimalPlaces(4).toString()
}
