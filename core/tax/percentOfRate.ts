import { Decimal } from '../money/decimal'

/** A rate as people write it. @example percentOfRate('0.075') // '7.5' */
export const percentOfRate = (rate: string): string => new Decimal(rate).times(100).toString()
/** A rate as it is computed with. @example rateOfPercent('7.5') // '0.075' */
export const rateOfPercent = (percent: string): string => new Decimal(percent).div(100).toString()

const SELDOM_ABOVE = 40
const SELDOM_BELOW = 1
/**
 * Whether a rate of tax is so high or so low that somebody should look at it again; none at all is not.
 * @param percent as people write it
 * @example isOddRate('70') // true: 7.0, most likely
 * Common practice: no tax on sales stands above 27 per cent (Hungary), and local ones begin at about one.
 */
export const isOddRate = (percent: string): boolean => {
  const rate = new Decimal(percent)
  return rate.gt(SELDOM_ABOVE) || (rate.gt(0) && rate.lt(SELDOM_BELOW))
}
