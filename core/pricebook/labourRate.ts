import { Decimal } from '../money/decimal'
import { InvalidValue } from '../errors/InvalidValue'

/** A year of a firm's labour: costs in major units, shares as fractions. */
export interface LabourYear {
  wages: string
  burden: string
  overhead: string
  paidHours: string
  billedShare: string
  targetMargin: string
}

/**
 * Labour rate an hour must bring, major units with four decimals: all that the year costs, over the hours that are billed, with the margin.
 * @throws InvalidValue when no hour is billed, or the margin is 1 or more
 * @example labourRateNeeded({ wages: '300000', burden: '60000', overhead: '140000', paidHours: '10000', billedShare: '0.5', targetMargin: '0.2' }) // '125'
 * Source: common practice of the trade.
 */
export function labourRateNeeded(year: LabourYear): string {
  const billed = new Decimal(year.paidHours).times(year.billedShare)
  if (billed.lte(0) || new Decimal(year.targetMargin).gte(1))
    throw new InvalidValue('Hours billed must be above zero and the margin below 100 %.')
  return new Decimal(year.wages)
    .plus(year.burden)
    .plus(year.overhead)
    .div(billed)
    .div(new Decimal(1).minus(year.targetMargin))
    .toDecimalPlaces(4)
    .toString()
}
/**
 * What one more point of billed share is worth: how much less an hour would have to bring, and what the year would bring more at a rate.
 * @throws InvalidValue as `labourRateNeeded`
 * @example pointWorth(year, '125') // { rateLess: '2.451', yearMore: '12500' }
 * Source: follows from `labourRateNeeded`: one point of 10 000 paid hours is 100 hours more on a bill.
 */
export function pointWorth(year: LabourYear, rate: string): { rateLess: string; yearMore: string } {
  const more = { ...year, billedShare: new Decimal(year.billedShare).plus('0.01').toString() }
  return {
    rateLess: new Decimal(labourRateNeeded(year))
      .minus(labourRateNeeded(more))
      .toDecimalPlaces(4)
      .toString(),
    yearMore: new Decimal(year.paidHours).times('0.01').times(rate).toDecimalPlaces(4).toString(),
  }
}
