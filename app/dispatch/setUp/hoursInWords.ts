// A technician's week in few words.
import { DAYS, type Person } from './useSetUp'

type Hours = Person['hours'][number]
const said = (h: Hours) => {
  const rest = h.breakFrom ? `, break ${h.breakFrom}–${h.breakTo}` : ''
  return `${h.from}–${h.to}, ${h.morning} + ${h.afternoon}${rest}`
}
/** Weekdays, counted from nought, as a span where they follow each other. */
function daysInWords(days: readonly number[]): string {
  const [first, last] = [days[0]!, days.at(-1)!]
  const span = days.length > 2 && last - first === days.length - 1
  return span ? `${DAYS[first]}–${DAYS[last]}` : days.map((day) => DAYS[day]).join(', ')
}
/** Days with the same hours are said once. */
export function hoursInWords(hours: readonly Hours[]): string[] {
  const same = new Map<string, number[]>()
  for (const h of hours.toSorted((a, b) => a.weekday - b.weekday))
    same.set(said(h), [...(same.get(said(h)) ?? []), h.weekday - 1])
  return [...same].map(([words, days]) => `${daysInWords(days)} ${words}`)
}
