const formats = new Map<string, Intl.NumberFormat>()

/**
 * A format of numbers, kept once it was made: making one costs a hundred times what using it does.
 * @param locale BCP 47
 * @example numberFormat('en-US', { maximumFractionDigits: 1 }).format(2.25) // '2.3'
 */
export function numberFormat(locale: string, as: Intl.NumberFormatOptions): Intl.NumberFormat {
  const key = `${locale} ${JSON.stringify(as)}`
  const made = formats.get(key) ?? new Intl.NumberFormat(locale, as)
  formats.set(key, made)
  return made
}

/**
 * A quantity in the figures of a locale, its decimals where they say something; three at most, as quantities are kept.
 * The decimal string goes to Intl as it is, never through a float.
 * @example sayQuantity('1250.500', 'en-US') // '1,250.5'
 * @example sayQuantity('1250.500', 'de-DE') // '1.250,5'
 */
export const sayQuantity = (quantity: string, locale: string): string =>
  numberFormat(locale, { maximumFractionDigits: 3 }).format(quantity as unknown as number)

/**
 * A rate as a locale writes a percentage, with the decimals that it has, four at most.
 * @param rate a fraction: 0.07 for seven per cent
 * @example sayRate('0.0725', 'en-US') // '7.25%'
 * @example sayRate('0.19', 'de-DE') // '19 %', with a blank that does not break
 */
export const sayRate = (rate: string, locale: string): string =>
  numberFormat(locale, { style: 'percent', maximumFractionDigits: 4 }).format(
    rate as unknown as number,
  )
