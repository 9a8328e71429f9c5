// What a customer is promised of a visit: a day, and from when to when somebody comes.
import { localDate, localTime } from '../time/zone'

/** A local date, and local times HH:MM; without times the day alone is promised. */
export interface VisitPromise {
  date: string
  from: string | null
  to: string | null
}
const HOURS = 2
const LAST = '23:59'
const clock = (hour: number) => `${String(hour).padStart(2, '0')}:00`

/**
 * The window that is told of a visit that begins then: two hours from the full hour on (common practice of the trade),
 * within the day.
 * @param start local time HH:MM
 * @example twoHoursFrom('09:45') // ['09:00', '11:00']
 */
export function twoHoursFrom(start: string): [from: string, to: string] {
  const hour = Number(start.slice(0, 2))
  return [clock(hour), hour + HOURS > 23 ? LAST : clock(hour + HOURS)]
}
/**
 * What would be promised of a visit that is planned for then, and expected later where what comes before it runs over: the
 * window of its start where that holds for both.
 * @param startAt epoch ms
 * @param expectedAt epoch ms
 * @example promiseFor(Date.parse('2026-12-04T20:10Z'), Date.parse('2026-12-04T20:10Z'), 'America/New_York')
 * // { date: '2026-12-04', from: '15:00', to: '17:00' }
 */
export function promiseFor(startAt: number, expectedAt: number, zone: string): VisitPromise {
  const of = (at: number) => {
    const [from, to] = twoHoursFrom(localTime(at, zone))
    return { date: localDate(at, zone), from, to }
  }
  const planned = of(startAt)
  return holdsPromise(planned, expectedAt, zone) ? planned : of(expectedAt)
}
/** Whether both say the same. @example isSamePromise(null, null) // true */
export const isSamePromise = (a: VisitPromise | null, b: VisitPromise | null): boolean =>
  a === null || b === null
    ? a === b
    : a.date === b.date && a.from === b.from && (a.from === null || a.to === b.to)
/**
 * Whether a visit that begins then is as promised: on that day, and within the window where there is one. Where nothing is
 * promised, nothing is broken.
 * @param startAt epoch ms
 * @example holdsPromise({ date: '2026-12-04', from: '08:00', to: '10:00' }, Date.parse('2026-12-04T09:00Z'), 'UTC') // true
 */
export function holdsPromise(promise: VisitPromise | null, startAt: number, zone: string): boolean {
  if (!promise) return true
  if (localDate(startAt, zone) !== promise.date) return false
  if (promise.from === null || promise.to === null) return true
  const time = localTime(startAt, zone)
  return promise.from <= time && time <= promise.to
}
/**
 * Whether what was promised can still be said of a visit that is planned for then: it is of that day, and not later than
 * its window. One that is planned early waits for the window.
 * @param startAt epoch ms
 * @example isStillTrue({ date: '2026-12-04', from: '08:00', to: '10:00' }, Date.parse('2026-12-04T07:30Z'), 'UTC') // true
 */
export function isStillTrue(promise: VisitPromise | null, startAt: number, zone: string): boolean {
  if (!promise) return true
  const late = promise.to !== null && localTime(startAt, zone) > promise.to
  return localDate(startAt, zone) === promise.date && !late
}
/**
 * A promise in words.
 * @param day how a date is said
 * @example sayPromise({ date: '2026-12-04', from: '08:00', to: '10:00' }, sayDay) // 'Fri, Dec 4, between 08:00 and 10:00'
 */
export const sayPromise = ({ date, from, to }: VisitPromise, day: (date: string) => string) =>
  from ? `${day(date)}, between ${from} and ${to}` : day(date)
