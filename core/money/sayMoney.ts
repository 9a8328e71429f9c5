import type { Money } from './formatMinor'

/**
 * Money as the company writes it, from its wire form; the decimal string goes to Intl as it is, never through a float.
 * @param locale BCP 47
 * @example sayMoney({ amount: '1759.80', currency: 'USD' }, 'en-US') // '$1,759.80'
 */
export const sayMoney = (money: Money, locale: string): string =>
  new Intl.NumberFormat(locale, { style: 'currency', currency: money.currency }).format(
    money.amount as unknown as number,
  )
