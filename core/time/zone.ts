import { Temporal } from 'temporal-polyfill'

/** Local date and time in a zone as epoch milliseconds. A time in the spring gap moves forward by the gap. */
export const localToInstant = (date: string, time: string, zone: string): number =>
  Temporal.PlainDateTime.from(`${date}T${time}`).toZonedDateTime(zone, {
    disambiguation: 'compatible',
  }).epochMilliseconds
/** The ISO date of an instant in a zone. */
export const localDate = (instant: number, zone: string): string =>
  Temporal.Instant.fromEpochMilliseconds(instant).toZonedDateTimeISO(zone).toPlainDate().toString()
/** The hh:mm of an instant in a zone. */
export const localTime = (instant: number, zone: string): string =>
  Temporal.Instant.fromEpochMilliseconds(instant)
    .toZonedDateTimeISO(zone)
    .toPlainTime()
    .toString({ smallestUnit: 'minute' })
/** A date some days away. @example plusDays('2026-11-24', -1) // '2026-11-23' */
export const plusDays = (date: string, days: number): string =>
  Temporal.PlainDate.from(date).add({ days }).toString()
/** A date some months away; a day that the month does not have becomes its last. @example plusMonths('2026-01-31', 1) // '2026-02-28' */
export const plusMonths = (date: string, months: number): string =>
  Temporal.PlainDate.from(date).add({ months }).toString()
/** ISO weekday, 1 Monday to 7 Sunday. */
export const weekday = (date: string): number => Temporal.PlainDate.from(date).dayOfWeek
/** Start and end of a local day; 23 or 25 hours apart when the clocks change. */
export const dayBounds = (date: string, zone: string): { from: number; to: number } => ({
  from: localToInstant(date, '00:00', zone),
  to: localToInstant(plusDays(date, 1), '00:00', zone),
})
/** Days from one date to another; negative when the other comes first. @example daysBetween('2026-11-01', '2026-11-24') // 23 */
export const daysBetween = (from: string, to: string): number =>
  Temporal.PlainDate.from(from).until(Temporal.PlainDate.from(to), { largestUnit: 'day' }).days
/** Whether a text is a day of the calendar, as YYYY-MM-DD. @example isDay('2026-02-30') // false */
export function isDay(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false
  const [year, month, day] = text.split('-').map(Number) as [number, number, number]
  return (
    month >= 1 &&
    month <= 12 &&
    day >= 1 &&
    day <= Temporal.PlainYearMonth.from({ year, month }).daysInMonth
  )
}
