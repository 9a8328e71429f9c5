import type { Span } from './plan/instance'

/**
 * How many visits a technician takes in the morning and in the afternoon of one day. A half counts nothing when they are away in
 * the middle of it, which is two hours from noon (our own rule); a territory's capacity is the sum of its people's (common practice of the trade).
 * @param hours what they take on such a weekday; undefined when they do not work then
 * @param away time off and holidays; same unit as `noon`, milliseconds
 * @example halfDayCapacity({ morning: 3, afternoon: 3 }, [], noon) // { morning: 3, afternoon: 3 }
 */
export function halfDayCapacity(
  hours: { morning: number; afternoon: number } | undefined,
  away: readonly Span[],
  noon: number,
): { morning: number; afternoon: number } {
  const here = (at: number) => !away.some((a) => a.from <= at && at < a.to)
  return {
    morning: here(noon - 7_200_000) ? (hours?.morning ?? 0) : 0,
    afternoon: here(noon + 7_200_000) ? (hours?.afternoon ?? 0) : 0,
  }
}
