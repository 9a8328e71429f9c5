import { isUnderWay, type VisitState } from '../visits/visitLifecycle'

export interface NowAndNext<V> {
  /** where somebody is, or is driving to */
  now: V | null
  /** what begins next, as the day will run */
  next: V | null
  /** how many are over, those that nobody opened the door for among them */
  over: number
  /** how many have not begun */
  left: number
}

/**
 * What one technician is at, and what comes next, out of the visits of a day in any order. What was cancelled counts
 * nowhere; a visit without an expected arrival is not next.
 * @param visits with the arrival that is expected (`predictDay`), as text that sorts like the time it says
 * @example nowAndNext([{ state: 'finished', arriveAt: '08:00' }, { state: 'planned', arriveAt: '10:00' }]).left // 1
 */
export function nowAndNext<V extends { state: VisitState; arriveAt: string | null }>(
  visits: readonly V[],
): NowAndNext<V> {
  const planned = visits.filter((visit) => visit.state === 'planned')
  const [next = null] = planned
    .filter((visit) => visit.arriveAt !== null)
    .sort((a, b) => (a.arriveAt! < b.arriveAt! ? -1 : 1))
  return {
    now: visits.find((visit) => isUnderWay(visit.state)) ?? null,
    next,
    over: visits.filter(({ state }) => state === 'finished' || state === 'no_access').length,
    left: planned.length,
  }
}
