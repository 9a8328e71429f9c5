import { Decimal } from './decimal'

/**
 * A sum as other programs write it into files, in major units: with a currency's sign or letters on either side, with
 * signs between thousands, with what is below nothing in brackets or with a minus before or after it. Null where it is
 * none.
 *
 * Which sign divides the decimals is told by the figures where they tell it: the last of two different signs does, one that
 * comes twice does not. Where a sign stands once before three figures, nobody can tell; there the locale says it.
 * @param locale BCP 47, of the firm
 * @example readSum('1.234,56 €', 'de-DE') // '1234.56'
 * @example readSum('($40.00)', 'en-US') // '-40'
 * @example readSum('.50', 'en-US') // '0.5'
 * @example readSum('1,234', 'en-US') // '1234'; in 'de-DE' '1.234'
 */
export function readSum(text: string, locale: string): string | null {
  const bare = text.replace(/[\s\u00a0\u202f'’]/g, '').replace(/\u2212/g, '-')
  const parts =
    /^(\()?([+-]?)(?:\p{L}+\.?)?\p{Sc}?([+-]?)([\d.,]+)\p{Sc}?\p{L}*([+-]?)(\))?$/u.exec(bare)
  if (!parts) return null
  const [, opens, ...rest] = parts
  const [before, between, figures, after, closes] = rest as string[]
  const signs = [before, between, after].filter(Boolean)
  if (Boolean(opens) !== Boolean(closes) || signs.length + (opens ? 1 : 0) > 1) return null
  const plain = plainFigures(figures!, decimalSign(locale))
  if (plain === null) return null
  const below = Boolean(opens) || signs[0] === '-'
  return new Decimal(plain).times(below ? -1 : 1).toString()
}
/** What divides the decimals in a locale. */
const decimalSign = (locale: string): string =>
  new Intl.NumberFormat(locale, { numberingSystem: 'latn' })
    .formatToParts(0.5)
    .find(({ type }) => type === 'decimal')?.value ?? '.'

/** The figures with a point before the decimals and nothing between thousands; null where signs stand askew. */
function plainFigures(figures: string, usual: string): string | null {
  const decimal = decimalOf(figures, usual)
  const [whole = '', fraction = '0', ...more] = decimal ? figures.split(decimal) : [figures]
  const isStraight = /^(\d{0,12}|\d{1,3}(\.\d{3})+|\d{1,3}(,\d{3})+)$/.test(whole)
  if (!isStraight || more.length || !/^\d{1,4}$/.test(fraction)) return null
  return `${whole.replace(/[.,]/g, '') || '0'}.${fraction}`
}
/** The sign that divides the decimals of these figures; nothing where none does. */
function decimalOf(figures: string, usual: string): '.' | ',' | null {
  const signs = [...figures.matchAll(/[.,]/g)].map(([sign]) => sign as '.' | ',')
  const [first] = signs
  const last = signs.at(-1)
  if (!first || !last) return null
  if (first !== last) return last
  if (signs.length > 1) return null
  const isThousands = /^\d{1,3}[.,]\d{3}$/.test(figures) && last !== usual
  return isThousands ? null : last
}
