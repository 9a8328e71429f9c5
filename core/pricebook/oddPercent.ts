import { Decimal } from '../money/decimal'

/**
 * Whether a rate, as a fraction, is unusual enough to ask once if it is meant: over 40 %, or above nothing and under 1 % (a tax rate typed
 * ten times too large or too small). Our own rule.
 * @example oddPercent('0.65') // true
 * @example oddPercent('0.065') // false
 */
export function oddPercent(rate: string): boolean {
  const r = new Decimal(rate)
  return r.gt('0.4') || (r.gt(0) && r.lt('0.01'))
}
