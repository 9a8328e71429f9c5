import { numberFormat } from '../text/sayNumber'
import { currencyExponent } from './currencyExponent'
import type { Money } from './formatMinor'

/** As many decimals as the currency has, whether they say something or not. */
const inFull = (currency: string) => ({
  minimumFractionDigits: currencyExponent(currency),
  maximumFractionDigits: currencyExponent(currency),
})

/**
 * Money as people of a locale write it, from its wire form; the decimal string goes to Intl as it is,
 * never through a float. The one way in which sums are said, on screens, papers and in mails.
 * @param locale BCP 47
 * @param symbol whether its currency is said with it; without, it has the currency's decimals all the same
 * @example sayMoney({ amount: '1759.80', currency: 'USD' }, 'en-US') // '$1,759.80'
 * @example sayMoney({ amount: '1759', currency: 'JPY' }, 'en-GB') // '¥1,759'
 * @example sayMoney({ amount: '1759', currency: 'JPY' }, 'en-US', false) // '1,759'
 */
export const sayMoney = (money: Money, locale: string, symbol = true): string =>
  (symbol
    ? numberFormat(locale, {
        style: 'currency',
        currency: money.currency,
        // All sums are of the firm's own currency: its sign alone, as it is read there.
        currencyDisplay: 'narrowSymbol',
        ...inFull(money.currency),
      })
    : numberFormat(locale, inFull(money.currency))
  ).format(money.amount as unknown as number)

/**
 * A unit price in the figures of a locale: the decimals of its currency at least, and those beyond that say something.
 * @param price major units, at most four decimals
 * @example sayUnitPrice('1759.8', 'USD', 'en-US') // '1,759.80'
 * @example sayUnitPrice('0.035', 'USD', 'en-US') // '0.035'
 * @example sayUnitPrice('1759', 'JPY', 'en-US') // '1,759'
 */
export const sayUnitPrice = (price: string, currency: string, locale: string): string =>
  numberFormat(locale, {
    minimumFractionDigits: currencyExponent(currency),
    maximumFractionDigits: 4,
  }).format(price as unknown as number)
