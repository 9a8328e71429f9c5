// A day from top to bottom: where a moment stands, and how tall a span is.
import { HOUR } from '~~/core/time/units'
import type { Answer } from '~~/shared/api'

export type Day = Answer<'schedule'>
export type Visit = Day['visits'][number]
const PX = 72
const ms = (at: string | number) => (typeof at === 'number' ? at : Date.parse(at))
export function dayScale({ dayStart, dayEnd }: Pick<Day, 'dayStart' | 'dayEnd'>) {
  const [from, to] = [Date.parse(dayStart), Date.parse(dayEnd)]
  const y = (at: string | number) => ((ms(at) - from) / HOUR) * PX
  const height = y(to)
  /** Where a span begins and how tall it is; what reaches beyond the day is cut off at its edges. */
  const place = (begin: string | number, end: string | number, least = 0) => {
    const top = Math.max(0, y(begin))
    return { top: `${top}px`, height: `${Math.max(least, Math.min(height, y(end)) - top)}px` }
  }
  const hours = Array.from(
    { length: Math.round((to - from) / HOUR) + 1 },
    (_, i) => from + i * HOUR,
  )
  return { from, to, y, height, place, hours }
}
/** When a visit is predicted to begin and to end. */
export const begins = (v: Visit) => Date.parse(v.arriveAt ?? v.startAt!)
export const ends = (v: Visit) =>
  Date.parse(v.finishAt ?? '') || begins(v) + v.durationSeconds * 1000
