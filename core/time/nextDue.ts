// When something that is done again and again is due next.
import { plusDays, plusMonths } from './zone'

export type Every = 'day' | 'week' | 'month'
const WEEK = 7
/** The day of the `n`th time, counted from the first. */
function dayOf(begun: string, every: Every, n: number): string {
  if (every === 'month') return plusMonths(begun, n)
  return plusDays(begun, every === 'week' ? n * WEEK : n)
}
/**
 * The first day after `today` on which it is due. A day that was missed is left out; a week keeps its weekday; a month that
 * is too short takes its last day, and the next one that is long enough has the old day again.
 * @example nextDue('2026-01-31', 'month', '2026-02-28') // '2026-03-31'
 * @example nextDue('2026-11-24', 'week', '2026-11-26') // '2026-12-01'
 */
export function nextDue(begun: string, every: Every, today: string): string {
  for (let n = 0; ; n++) {
    const day = dayOf(begun, every, n)
    if (day > today) return day
  }
}
