import { InvalidValue } from '../errors/InvalidValue'
/**
 * Number of decimals of a currency's minor unit.
 * @example currencyExponent('USD') // 2
 * @throws InvalidValue when the code is not one of the currencies that Open Ledger keeps books in
 * Source: ISO 4217. Only currencies with exponent 0, 2 or 3 are kept.
 */
const EXPONENTS: Record<string, 0 | 2 | 3> = {
  USD: 2,
  CAD: 2,
  EUR: 2,
  GBP: 2,
  AUD: 2,
  NZD: 2,
  CHF: 2,
  SEK: 2,
  NOK: 2,
  DKK: 2,
  PLN: 2,
  CZK: 2,
  ZAR: 2,
  INR: 2,
  MXN: 2,
  BRL: 2,
  JPY: 0,
  KRW: 0,
  CLP: 0,
  ISK: 0,
  VND: 0,
  KWD: 3,
  BHD: 3,
  OMR: 3,
  JOD: 3,
  TND: 3,
}
export function currencyExponent(currency: string): 0 | 2 | 3 {
  const exponent = EXPONENTS[currency]
  if (exponent === undefined) throw new InvalidValue(`unknown currency ${currency}`)
  return exponent
}
export const knownCurrencies = Object.keys(EXPONENTS)
