import { currencyExponent } from './currencyExponent'
import type { Money } from './formatMinor'

const formats = new Map<string, Intl.NumberFormat>()

/** Formats are kept, because making one costs a hundred times what using it does. */
function formatOf(locale: string, currency: string, symbol: boolean): Intl.NumberFormat {
  const key = `${locale} ${currency} ${symbol}`
  const known = formats.get(key)
  if (known) return known
  const digits = currencyExponent(currency)
  const made = symbol
    ? new Intl.NumberFormat(locale, { style: 'currency', currency })
    : new Intl.NumberFormat(locale, {
        minimumFractionDigits: digits,
        maximumFractionDigits: digits,
      })
  formats.set(key, made)
  return made
}

/**
 * Money as people of a locale write it, from its wire form; the decimal string goes to Intl as it is,
 * never through a float. The one way in which sums are said, on screens, papers and in mails.
 * @param locale BCP 47
 * @param symbol whether its currency is said with it; without, it has the currency's decimals all the same
 * @example sayMoney({ amount: '1759.80', currency: 'USD' }, 'en-US') // '$1,759.80'
 * @example sayMoney({ amount: '1759', currency: 'JPY' }, 'en-US', false) // '1,759'
 */
export const sayMoney = (money: Money, locale: string, symbol = true): string =>
  formatOf(locale, money.currency, symbol).format(money.amount as unknown as number)

/**
 * A unit price in the figures of a locale: the decimals of its currency at least, and those beyond that say something.
 * @param price major units, at most four decimals
 * @example sayUnitPrice('1759.8', 'USD', 'en-US') // '1,759.80'
 * @example sayUnitPrice('0.035', 'USD', 'en-US') // '0.035'
 * @example sayUnitPrice('1759', 'JPY', 'en-US') // '1,759'
 */
export const sayUnitPrice = (price: string, currency: string, locale: string): string =>
  new Intl.NumberFormat(locale, {
    minimumFractionDigits: currencyExponent(currency),
    maximumFractionDigits: 4,
  }).format(price as unknown as number)
