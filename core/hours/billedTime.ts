// How time on site becomes time that is charged, as a firm says it.
import { Decimal } from '../money/decimal'
import { roundDuration } from './roundDuration'

export const TIME_WAYS = ['nearest', 'up'] as const
/** Whole minutes that a step may have: parts of an hour. */
export const TIME_STEPS = [1, 5, 6, 10, 12, 15, 20, 30, 60] as const
export interface BilledTime {
  /** to the step that is nearest, or always up to the next */
  way: (typeof TIME_WAYS)[number]
  stepMinutes: number
  /** what is charged at least where anything is; never less than a step */
  leastMinutes: number
}
/** The nearest tenth of an hour, and one at least (common practice). */
export const USUAL_BILLED_TIME: BilledTime = { way: 'nearest', stepMinutes: 6, leastMinutes: 6 }

/**
 * What is charged for time on site, in hours of three decimals; nothing for none.
 * @example billedHours(23 * 60, USUAL_BILLED_TIME) // '0.4'
 * @example billedHours(16 * 60, { way: 'up', stepMinutes: 15, leastMinutes: 60 }) // '1'
 */
export function billedHours(
  seconds: number,
  { way, stepMinutes, leastMinutes }: BilledTime,
): string {
  const minimumSeconds = Math.max(leastMinutes, stepMinutes) * 60
  const policy = { kind: way, stepSeconds: stepMinutes * 60, minimumSeconds }
  return new Decimal(roundDuration(seconds, policy)).div(3600).toDecimalPlaces(3).toString()
}
