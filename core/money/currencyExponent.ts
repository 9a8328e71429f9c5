import { InvalidValue } from '../errors/InvalidValue'
const of = (exponent: 0 | 2 | 3, codes: string) =>
  codes.split(' ').map((code) => [code, exponent] as const)
const EXPONENTS: ReadonlyMap<string, 0 | 2 | 3> = new Map([
  ...of(2, 'USD CAD EUR GBP AUD NZD CHF SEK NOK DKK PLN CZK ZAR INR MXN BRL'),
  ...of(2, 'AED ALL AMD ARS AZN BAM BBD BDT BGN BMD BND BOB BSD BTN BWP BZD CNY COP CRC DOP'),
  ...of(2, 'DZD EGP ETB FJD GEL GHS GTQ HKD HNL HUF IDR ILS JMD KES KGS KHR KYD KZT LAK LBP LKR'),
  ...of(2, 'MAD MDL MKD MMK MNT MOP MUR MVR MYR MZN NAD NGN NIO NPR PAB PEN PGK PHP PKR QAR RON'),
  ...of(2, 'RSD SAR SCR SGD THB TRY TTD TWD TZS UAH UYU UZS XCD YER ZMW'),
  ...of(0, 'JPY KRW CLP ISK VND PYG RWF UGX XAF XOF XPF'),
  ...of(3, 'KWD BHD OMR JOD TND IQD LYD'),
])
/** Whether books are kept in a currency here. @example isKnownCurrency('XAU') // false */
export const isKnownCurrency = (currency: string): boolean => EXPONENTS.has(currency)
/**
 * Number of decimals of a currency's minor unit.
 * @example currencyExponent('USD') // 2
 * @throws InvalidValue when the code is not one of the currencies that Open Ledger keeps books in
 * Source: ISO 4217. Only currencies with exponent 0, 2 or 3 are kept.
 */
export function currencyExponent(currency: string): 0 | 2 | 3 {
  const exponent = EXPONENTS.get(currency)
  if (exponent === undefined) throw new InvalidValue(`unknown currency ${currency}`)
  return exponent
}
export const knownCurrencies = [...EXPONENTS.keys()]
