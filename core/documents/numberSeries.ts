/** A series of numbers that people say: what stands before the figures, and how many figures there are at least. */
export interface NumberSeries {
  /** `{year}` in it stands for the year of the paper */
  prefix: string
  width: number
  /** begins at 1 with each year, as some countries ask for */
  yearly: boolean
}
export const NUMBER_KINDS = ['invoice', 'quote', 'work_order', 'receipt'] as const
export type NumberKind = (typeof NUMBER_KINDS)[number]
/** The longest that a number may become, in signs. */
export const LONGEST_NUMBER = 24
const FIGURES = 9
const YEAR = '{year}'
const PREFIX = /^[\p{L}\p{N}./_-]*(\{year\}[\p{L}\p{N}./_-]*)?$/u

/**
 * The number of a paper in its series.
 * @param serial its place in the series, from 1
 * @param year of the paper, four figures
 * @example numberIn({ prefix: 'I-{year}-', width: 4, yearly: true }, 17, 2026) // 'I-2026-0017'
 */
export const numberIn = ({ prefix, width }: NumberSeries, serial: number, year: number): string =>
  prefix.replace(YEAR, String(year)) + String(serial).padStart(width, '0')

/**
 * The place that a number would have in a series in a year; null where it cannot be one of that year's.
 * @example serialIn({ prefix: 'I-', width: 1, yearly: false }, 'I-2041', 2026) // 2041
 * @example serialIn({ prefix: 'I-', width: 1, yearly: false }, '2041', 2026) // null
 */
export function serialIn(series: NumberSeries, number: string, year: number): number | null {
  const before = series.prefix.replace(YEAR, String(year))
  const figures = number.slice(before.length)
  if (!number.startsWith(before) || !/^\d{1,9}$/.test(figures)) return null
  const serial = Number(figures)
  return serial > 0 && numberIn(series, serial, year) === number ? serial : null
}

/**
 * Whether a series that goes on from `next` comes to a number, this year or in a later one.
 * @example willCome({ prefix: '', width: 1, yearly: false }, { next: 500, year: 2026 }, '512') // true
 */
export function willCome(
  series: NumberSeries,
  { next, year }: { next: number; year: number },
  number: string,
): boolean {
  const serial = serialIn(series, number, year)
  if (serial !== null) return serial >= next
  if (!series.prefix.includes(YEAR)) return false
  const later = new RegExp(`^${escaped(series.prefix).replace('\\{year\\}', '(\\d{4})')}\\d`)
  const named = Number(later.exec(number)?.[1])
  return named > year && serialIn(series, number, named) !== null
}
const escaped = (text: string) => text.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&')

/**
 * What is wrong with a series, by field; null where nothing is. One that begins anew with each year needs the year in
 * it, or it would say a number twice.
 * @example seriesProblem({ prefix: 'I-', width: 4, yearly: true }) // { field: 'prefix', message: 'Write {year} … }
 * Source: common practice; that a number is given once is asked by law (Directive 2006/112/EC, article 226 (2)), from memory.
 */
export function seriesProblem({
  prefix,
  width,
  yearly,
}: NumberSeries): { field: 'prefix' | 'yearly'; message: string } | null {
  if (!PREFIX.test(prefix))
    return {
      field: 'prefix',
      message: 'Letters, figures and . / _ - may stand before the number, and {year} once.',
    }
  if (yearly && !prefix.includes(YEAR))
    return {
      field: 'yearly',
      message: 'Write {year} before the number, or next year would repeat this year’s numbers.',
    }
  const longest = prefix.replace(YEAR, '2000').length + Math.max(width, FIGURES)
  return longest > LONGEST_NUMBER
    ? {
        field: 'prefix',
        message: `Together with its figures a number has ${LONGEST_NUMBER} signs at most.`,
      }
    : null
}
