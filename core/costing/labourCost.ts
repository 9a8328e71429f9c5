import { Decimal } from '../money/decimal'
import { roundToMinor } from '../money/roundToMinor'
import { workedSeconds, type ClockInterval } from '../hours/workedSeconds'

/** What is paid for: whoever pauses costs nothing (common practice of the trade). */
const PAID = ['drive', 'on_site', 'fetch', 'other'] as const

/**
 * What hours that were clocked cost, in minor units: each person's at their own rate, rounded once.
 * @param intervals each with what its person costs in an hour, in major units
 * @param now epoch milliseconds, the end of what still runs
 * @example labourCost([{ kind: 'on_site', startedAt: 0, endedAt: 1_800_000, costRate: '42' }], 0, 'USD') // 2100
 */
export function labourCost(
  intervals: readonly (ClockInterval & { costRate: string })[],
  now: number,
  currency: string,
): number {
  const cost = intervals.reduce((sum, interval) => {
    const seconds = workedSeconds([interval], now)
    const paid = PAID.reduce((n, kind) => n + seconds[kind], 0)
    return sum.plus(new Decimal(interval.costRate).times(paid).div(3600))
  }, new Decimal(0))
  return roundToMinor(cost, currency)
}
