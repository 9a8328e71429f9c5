import { isDay, plusDays, weekday } from './zone'

const MONTHS =
  'january february march april may june july august september october november december'.split(' ')
const WEEKDAYS = 'monday tuesday wednesday thursday friday saturday sunday'.split(' ')
const RELATIVE: ReadonlyMap<string, number> = new Map([
  ['today', 0],
  ['tomorrow', 1],
  ['yesterday', -1],
])
/** The place of a name in a list, by three of its letters or more; 0 where it is none. */
const named = (word: string, names: readonly string[]): number =>
  word.length < 3 ? 0 : names.findIndex((name) => name.startsWith(word)) + 1

/** A day as ISO, if the calendar has it. */
function dayOf(year: number, month: number, day: number): string | null {
  const iso = [String(year).padStart(4, '0'), pad(month), pad(day)].join('-')
  return isDay(iso) ? iso : null
}

const pad = (figure: number): string => String(figure).padStart(2, '0')

/** A year of two figures is of this century, as on a cheque of today. */
const fullYear = (year: string | undefined, today: string): number => {
  if (!year) return Number(today.slice(0, 4))
  return year.length === 2 ? 2000 + Number(year) : Number(year)
}

/** Whether people of a locale write the month before the day, told by how it formats a date. */
export function monthFirst(locale: string): boolean {
  const parts = new Intl.DateTimeFormat(locale).formatToParts(0)
  const at = (type: string) => parts.findIndex((part) => part.type === type)
  return at('month') < at('day')
}

/** Days from `today` to the next day of that name; today's own name is today. */
function toWeekday(name: string, today: string): number | null {
  const wanted = named(name, WEEKDAYS)
  return wanted ? (wanted - weekday(today) + 7) % 7 : null
}

/** A date whose month is a word: "27 nov", "Fri 27 Nov 2026", "nov 27, 26". */
function withMonthName(words: readonly string[], today: string): string | null {
  const months = words.map((word) => named(word, MONTHS)).filter(Boolean)
  const weekdays = words.filter((word) => named(word, WEEKDAYS))
  const figures = words.filter((word) => /^\d+(st|nd|rd|th)?$/.test(word))
  const [day, year, ...more] = figures
  const strange = words.length - months.length - weekdays.length - figures.length
  if (months.length !== 1 || weekdays.length > 1 || !day || more.length || strange) return null
  return dayOf(fullYear(year, today), months[0]!, parseInt(day, 10))
}

/**
 * The day that a person typed, as ISO; null where it is none. Read are ISO dates, figures in the order
 * of the locale ("11/27", "27.11.26"), a month's name with a day, a weekday's name (the next one,
 * today's own is today), "today", "tomorrow", "+3" (days from today) and a day of this month.
 * Without a year it is this year's.
 *
 * @example readDate('27 nov', '2026-11-24', 'en-US') // '2026-11-27'
 * @example readDate('11/27', '2026-11-24', 'en-US') // '2026-11-27'
 * @example readDate('fri', '2026-11-24', 'en-US') // '2026-11-27'
 * @example readDate('31 feb', '2026-11-24', 'en-US') // null
 */
export function readDate(typed: string, today: string, locale: string): string | null {
  const text = typed.trim().toLowerCase()
  if (isDay(text)) return text
  const ahead = /^([+-]\d{1,3})$/.exec(text)?.[1]
  const days = ahead ? Number(ahead) : (RELATIVE.get(text) ?? toWeekday(text, today))
  if (days !== null) return plusDays(today, days)
  const figures = /^(\d{1,2})(?:[./-](\d{1,2})(?:[./-](\d{4}|\d{2}))?\.?)?\.?$/.exec(text)
  if (!figures) return withMonthName(text.split(/[\s,.]+/).filter(Boolean), today)
  const [, first, second, year] = figures
  if (!second) return dayOf(fullYear(undefined, today), Number(today.slice(5, 7)), Number(first))
  const [month, day] = monthFirst(locale) ? [first, second] : [second, first]
  return dayOf(fullYear(year, today), Number(month), Number(day))
}
