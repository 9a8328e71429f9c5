/** One stretch of a person's clock; instants in epoch milliseconds; `endedAt` null while it runs. */
export interface ClockInterval {
  kind: 'drive' | 'on_site' | 'paused' | 'fetch' | 'other'
  startedAt: number
  endedAt: number | null
}

/**
 * Elapsed seconds of each kind of clock. Instants are absolute, so a night with a clock change has its true length.
 * @param now epoch milliseconds, the end of an interval that still runs
 * @example workedSeconds([{ kind: 'on_site', startedAt: 0, endedAt: 90_000 }], 0).on_site // 90
 */
export function workedSeconds(
  intervals: readonly ClockInterval[],
  now: number,
): Record<ClockInterval['kind'], number> {
  const sums = { drive: 0, on_site: 0, paused: 0, fetch: 0, other: 0 }
  for (const i of intervals)
    sums[i.kind] += Math.max(0, Math.round(((i.endedAt ?? now) - i.startedAt) / 1000))
  return sums
}

/** Hours shown as h:mm, seconds dropped. @example hoursMinutes(7272) // '2:01' */
export function hoursMinutes(seconds: number): string {
  const minutes = Math.floor(Math.max(0, seconds) / 60)
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`
}
