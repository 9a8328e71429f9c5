/**
 * Whether days and figures can be written so.
 * @param locale BCP 47, or whatever somebody sent instead
 * @example isLocale('en-GB') // true
 * @example isLocale('no such way') // false
 */
export const isLocale = (locale: string): boolean => {
  try {
    return Intl.DateTimeFormat.supportedLocalesOf(locale).length > 0
  } catch {
    return false
  }
}
