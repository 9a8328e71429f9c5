import { DAY } from './units'

const WORD = { day: 'D', month: 'MMM', year: 'YYYY' }
// Marks that turn the direction of reading are no part of what is typed.
const MARKS = /[\u200e\u200f]/g
const FIGURES = { day: 'DD', month: 'MM', year: 'YYYY' }

/**
 * The pattern by which a field writes a day and reads it back, in the order of a locale and with its signs. Months are words
 * in English and figures elsewhere, since what is typed is read by English names.
 * @param locale BCP 47
 * @returns of the tokens D, DD, MM, MMM and YYYY, with the locale's signs between them
 * @example dayPattern('en-US') // 'MMM D, YYYY'
 * @example dayPattern('en-GB') // 'D MMM YYYY'
 * @example dayPattern('de-DE') // 'DD.MM.YYYY'
 */
export function dayPattern(locale: string): string {
  const english = new Intl.Locale(locale).language === 'en'
  const tokens: Partial<Record<string, string>> = english ? WORD : FIGURES
  const format = new Intl.DateTimeFormat(locale, {
    calendar: 'gregory',
    numberingSystem: 'latn',
    timeZone: 'UTC',
    day: english ? 'numeric' : '2-digit',
    month: english ? 'short' : '2-digit',
    year: 'numeric',
  })
  const parts = format.formatToParts(DAY)
  const pattern = parts.map(({ type, value }) => tokens[type] ?? value).join('')
  return pattern.replace(MARKS, '')
}
