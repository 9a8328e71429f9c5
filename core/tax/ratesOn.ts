import type { TaxRate } from './taxTotals'

/** A rate as the firm keeps it: where nothing is said, it holds always, and everywhere. */
export interface KeptRate extends TaxRate {
  /** the first day on which it holds, ISO */
  from?: string
  /** the last one */
  until?: string
  /** what the postcodes of the places begin with where it is charged */
  postcodes?: string[]
}
/** When, and where, something is supplied. */
export interface Supplied {
  day: string
  postcode: string
}
const plain = (postcode: string) => postcode.replace(/\s/g, '').toUpperCase()
const isThere = ({ postcodes = [] }: KeptRate, postcode: string) =>
  postcodes.length === 0 || postcodes.some((one) => plain(postcode).startsWith(plain(one)))
const isThen = ({ from = '', until = '' }: KeptRate, day: string) =>
  from <= day && (until === '' || day <= until)

/**
 * The rates of a class that hold on a day at a place. Of one tax told several times the one that began last holds: a rate
 * that is told ahead takes the place of the one before it, which needs no end.
 * @returns in the order in which they are kept
 * @example
 * const vat = { code: 'vat', name: 'VAT', rate: '0.19' }
 * ratesOn([vat, { ...vat, code: 'vat-2', rate: '0.16', from: '2020-07-01' }], { day: '2020-07-01', postcode: '' })[0].rate // '0.16'
 * Source: a rate that changes applies by the day of supply; German VAT was 16 instead of 19 per cent from 2020-07-01 to
 * 2020-12-31 (Zweites Corona-Steuerhilfegesetz, § 28 UStG), which the test has.
 */
export function ratesOn(rates: readonly KeptRate[], { day, postcode }: Supplied): TaxRate[] {
  const holding = rates.filter((rate) => isThere(rate, postcode) && isThen(rate, day))
  const began = (name: string) =>
    holding
      .filter((one) => one.name.toLowerCase() === name.toLowerCase())
      .reduce((last, one) => ((one.from ?? '') >= (last.from ?? '') ? one : last))
  return holding
    .filter((rate) => began(rate.name) === rate)
    .map(({ code, name, rate }) => ({ code, name, rate }))
}
/**
 * The first rate that says the same tax for the same time and place as one before it; -1 where none does.
 * @example saidTwice([{ name: 'VAT' }, { name: 'vat', from: '2027-01-01' }]) // -1: the second follows the first
 */
export const saidTwice = (
  rates: readonly Pick<KeptRate, 'name' | 'from' | 'postcodes'>[],
): number => {
  const keys = rates.map(({ name, from = '', postcodes = [] }) =>
    JSON.stringify([name.toLowerCase(), from, postcodes.map(plain).sort()]),
  )
  return keys.findIndex((key, i) => keys.indexOf(key) < i)
}
