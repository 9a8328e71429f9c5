import type { VisitState } from '../visits/visitLifecycle'

export interface DayStop {
  id: string
  state: VisitState
  startAt: number
  durationSeconds: number
  driveSeconds: number
  promiseEnd: number | null
  /** from the clock, when it has happened */
  setOffAt: number | null
  arrivedAt: number | null
  finishedAt: number | null
  /** where they were seen on the way: when, and how far from there */
  seen?: { at: number; driveSeconds: number } | null
}
export interface Prediction {
  id: string
  arriveAt: number
  finishAt: number
  atRisk: boolean
  lateSeconds: number
}

const isDone = (s: DayStop) => s.state === 'finished' || s.state === 'no_access'
/** When a stop that has begun began, and when it is over or will be; null for one that has not. */
function begunSpan(s: DayStop, now: number): { arriveAt: number; finishAt: number } | null {
  if (s.arrivedAt === null && s.setOffAt === null) return null
  const onTheWay = s.seen ?? { at: s.setOffAt!, driveSeconds: s.driveSeconds }
  const arriveAt = s.arrivedAt ?? Math.max(now, onTheWay.at + onTheWay.driveSeconds * 1000)
  const finishAt =
    isDone(s) && s.finishedAt !== null
      ? s.finishedAt
      : Math.max(arriveAt + s.durationSeconds * 1000, s.arrivedAt === null ? 0 : now)
  return { arriveAt, finishAt }
}

/**
 * How a technician's day will run from now on, from the clocks: for each stop in order the arrival and finish that are
 * to be expected, and whether the promise is at risk (predicted arrival after the promised window's end).
 * Nobody arrives before the planned start, nor before they have left every stop that has begun, in whatever order the day
 * is worked; a visit that runs over lasts at least until now.
 * @param stops one technician's stops of a day in order of start; epoch ms
 * @example predictDay([onSiteUntil15, doneAlready, promisedUntil1430], at1110)[2].atRisk // true
 */
export function predictDay(stops: readonly DayStop[], now: number): Prediction[] {
  const today = stops.filter((s) => s.state !== 'cancelled')
  const spans = new Map(today.map((s) => [s.id, begunSpan(s, now)]))
  // Where somebody still is, or was last: from there they go on, whatever the plan says comes next.
  let free = Math.max(-Infinity, ...[...spans.values()].map((span) => span?.finishAt ?? -Infinity))
  return today.map((s) => {
    const begun = spans.get(s.id)
    const arriveAt =
      begun?.arriveAt ?? Math.max(s.startAt, Math.max(free, now) + s.driveSeconds * 1000)
    const finishAt = begun?.finishAt ?? arriveAt + s.durationSeconds * 1000
    free = Math.max(free, finishAt)
    const late =
      !isDone(s) && s.promiseEnd !== null
        ? Math.max(0, Math.round((arriveAt - s.promiseEnd) / 1000))
        : 0
    return { id: s.id, arriveAt, finishAt, atRisk: late > 0, lateSeconds: late }
  })
}
