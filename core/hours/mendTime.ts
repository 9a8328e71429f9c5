// A stretch of time that is entered or corrected by hand: what speaks against it.
import type { ClockInterval } from './workedSeconds'

export const CLOCK_KINDS = {
  drive: 'driving',
  on_site: 'on site',
  paused: 'break',
  fetch: 'fetching a part',
  other: 'other',
} as const satisfies Readonly<Record<ClockInterval['kind'], string>>
export const CLOCK_KIND_NAMES = Object.keys(CLOCK_KINDS) as readonly ClockInterval['kind'][]

/** Epoch milliseconds; `endedAt` null while the clock runs. */
export interface Stretch {
  startedAt: number
  endedAt: number | null
}
/** Nobody works a day and a night on end: more is a typing error (our own rule). */
const LONGEST_MS = 16 * 3_600_000
export type TimeFault = 'ends_before' | 'not_yet' | 'too_long' | 'overlap'

/**
 * What is wrong with a stretch of a person's time, beside their others: it ends before it begins, has not been yet, is
 * longer than sixteen hours, or overlaps another one. Stretches that touch do not overlap. Instants are absolute: over a
 * clock change it is as long as it was.
 * @param others the person's other stretches; one that runs lasts for ever
 * @example timeFault({ startedAt: 0, endedAt: 60_000 }, [{ startedAt: 30_000, endedAt: null }], 60_000) // 'overlap'
 */
export function timeFault(
  { startedAt, endedAt }: Stretch,
  others: readonly Stretch[],
  now: number,
): TimeFault | null {
  const until = endedAt ?? Infinity
  if (until <= startedAt) return 'ends_before'
  if (startedAt > now || (endedAt ?? now) > now) return 'not_yet'
  if ((endedAt ?? now) - startedAt > LONGEST_MS) return 'too_long'
  const touches = others.some((o) => o.startedAt < until && startedAt < (o.endedAt ?? Infinity))
  return touches ? 'overlap' : null
}
