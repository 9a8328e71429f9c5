import { Decimal } from '../money/decimal'
import { roundToMinor } from '../money/roundToMinor'

/** When labour costs more: on these days of the week (1 Monday to 7 Sunday; 8 any holiday), from one time of day to another. */
export interface TimeFactor {
  name: string
  days: readonly number[]
  from: string
  to: string
  factor: string
}
export const HOLIDAY = 8

/**
 * The factor on labour at a moment: the highest of those that hold (our own rule). Times are hh:mm of the company's zone; `to` is not
 * included, and 24:00 ends a day. One that ends before it begins goes over midnight, and belongs to the day on which it began. Null where
 * none holds.
 * @example factorAt([{ name: 'Weekend', days: [6, 7], from: '00:00', to: '24:00', factor: '1.5' }], { weekday: 6, time: '10:00', holiday: false, holidayBefore: false })?.name // 'Weekend'
 * Source: common practice of the trade (evening, weekend, holiday).
 */
export function factorAt(
  factors: readonly TimeFactor[],
  at: { weekday: number; time: string; holiday: boolean; holidayBefore: boolean },
): TimeFactor | null {
  const on = (f: TimeFactor, weekday: number, holiday: boolean) =>
    f.days.includes(weekday) || (holiday && f.days.includes(HOLIDAY))
  const before = at.weekday === 1 ? 7 : at.weekday - 1
  const holds = factors.filter((f) =>
    f.from < f.to
      ? on(f, at.weekday, at.holiday) && at.time >= f.from && at.time < f.to
      : (on(f, at.weekday, at.holiday) && at.time >= f.from) ||
        (on(f, before, at.holidayBefore) && at.time < f.to),
  )
  return holds.reduce<TimeFactor | null>(
    (best, f) => (best && new Decimal(best.factor).gte(f.factor) ? best : f),
    null,
  )
}
/**
 * What a factor adds to a price whose labour takes some seconds at a rate: hours × rate × (factor − 1), in minor units. Parts, sundries,
 * rounding and minimum are as they are on any other day.
 * @example timeSurcharge({ seconds: 7920, rate: '128' }, '1.5', 'USD') // 14080: half of 2.2 × 128.00
 */
export const timeSurcharge = (
  labour: { seconds: number; rate: string },
  factor: string,
  currency: string,
): number =>
  roundToMinor(
    new Decimal(labour.seconds).times(labour.rate).times(new Decimal(factor).minus(1)).div(3600),
    currency,
  )
