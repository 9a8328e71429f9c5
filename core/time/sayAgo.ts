import { DAY, HOUR, MINUTE } from './units'

/**
 * How long ago something was, as people say it: minutes, hours up to two days, then days, each rounded to the nearest.
 * @param ms milliseconds since then; what lies ahead is no time ago
 * @example sayAgo(12 * MINUTE) // '12 min'
 * @example sayAgo(30 * HOUR) // '30 h'
 * @example sayAgo(3 * DAY) // '3 days'
 * Our own wording.
 */
export function sayAgo(ms: number): string {
  if (ms < HOUR) return `${Math.max(0, Math.round(ms / MINUTE))} min`
  if (ms < 2 * DAY) return `${Math.round(ms / HOUR)} h`
  return `${Math.round(ms / DAY)} days`
}
