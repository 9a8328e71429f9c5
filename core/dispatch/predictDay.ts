import type { VisitState } from '../visits/workOrderState'

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
}
export interface Prediction { id: string, arriveAt: number, finishAt: number, atRisk: boolean, lateSeconds: number }

/**
 * How a technician's day will run from now on, from the clocks: for each stop in order the arrival and finish that are
 * to be expected, and whether the promise is at risk (predicted arrival after the promised window's end).
 * Nobody arrives before the planned start; a visit that runs over lasts at least until now.
 * @param stops one technician's stops of a day in order of start; epoch ms
 */
export function predictDay(stops: readonly DayStop[], now: number): Prediction[] {
  let free = -Infinity
  return stops.filter(s => s.state !== 'cancelled').map((s) => {
    let arriveAt: number
    if (s.arrivedAt !== null) arriveAt = s.arrivedAt
    else if (s.setOffAt !== null) arriveAt = Math.max(now, s.setOffAt + s.driveSeconds * 1000)
    else arriveAt = Math.max(s.startAt, Math.max(free, now) + s.driveSeconds * 1000)
    const done = s.state === 'finished' || s.state === 'no_access'
    const finishAt = done && s.finishedAt !== null ? s.finishedAt : Math.max(arriveAt + s.durationSeconds * 1000, s.arrivedAt !== null ? now : 0)
    free = finishAt
    const late = !done && s.promiseEnd !== null ? Math.max(0, Math.round((arriveAt - s.promiseEnd) / 1000)) : 0
    return { id: s.id, arriveAt, finishAt, atRisk: late > 0, lateSeconds: late }
  })
}
