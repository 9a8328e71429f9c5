/**
 * Countries that write on Letter; all others write on A4.
 * Source: Unicode CLDR, supplemental data, measurementData/paperSize "US-Letter" (from memory).
 */
const LETTER = new Set('BZ CA CL CO CR GT MX NI PA PH PR SV US VE'.split(' '))

/**
 * The size of paper that is customary where a locale is spoken; without a country, that of its likeliest one.
 * @param locale BCP 47
 * @example paperSize('en-US') // 'LETTER'
 * @example paperSize('de') // 'A4'
 */
export function paperSize(locale: string): 'LETTER' | 'A4' {
  const { region } = new Intl.Locale(locale).maximize()
  return region && LETTER.has(region) ? 'LETTER' : 'A4'
}
