import { Temporal } from 'temporal-polyfill'

/**
 * How a day is said: short in lists, long above a page, with its year where that may be another one, written on
 * papers; its weekday alone, or all but that.
 */
export type DayStyle = 'short' | 'long' | 'withYear' | 'written' | 'weekday' | 'dayOfMonth'
const SHORT = { weekday: 'short', day: 'numeric', month: 'short' } as const
const STYLES: Readonly<Record<DayStyle, Intl.DateTimeFormatOptions>> = {
  short: SHORT,
  long: { weekday: 'long', day: 'numeric', month: 'long' },
  withYear: { ...SHORT, year: 'numeric' },
  written: { dateStyle: 'long' },
  weekday: { weekday: 'short' },
  dayOfMonth: { day: 'numeric', month: 'short' },
}
const formats = new Map<string, Intl.DateTimeFormat>()

/** Formats are kept, because making one costs a hundred times what using it does. */
function formatOf(locale: string, style: DayStyle): Intl.DateTimeFormat {
  const key = `${locale} ${style}`
  const known = formats.get(key)
  if (known) return known
  const made = new Intl.DateTimeFormat(locale, { ...STYLES[style], timeZone: 'UTC' })
  formats.set(key, made)
  return made
}

/**
 * A day as people of a locale say it: the one way in which days are said, on screens, papers and in mails.
 * @param day YYYY-MM-DD
 * @param locale BCP 47
 * @throws RangeError when there is no such day
 * @example sayDay('2026-11-24', 'en-US') // 'Tue, Nov 24'
 * @example sayDay('2026-11-24', 'en-GB', 'long') // 'Tuesday 24 November'
 * @example sayDay('2026-11-24', 'en-US', 'written') // 'November 24, 2026'
 */
export const sayDay = (day: string, locale: string, style: DayStyle = 'short'): string =>
  formatOf(locale, style).format(
    Temporal.PlainDate.from(day).toZonedDateTime('UTC').epochMilliseconds,
  )

/**
 * A month as people of a locale say it.
 * @param month YYYY-MM
 * @example sayMonth('2026-11', 'en-US') // 'November 2026'
 */
export const sayMonth = (month: string, locale: string): string =>
  Temporal.PlainDate.from(`${month}-01`).toLocaleString(locale, { month: 'long', year: 'numeric' })
