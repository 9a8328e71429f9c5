import currencies from 'country-to-currency'
import { isKnownCurrency } from '../money/currencyExponent'
import type { TaxMode } from '../tax/taxTotals'

/** What is customary in a country, as far as a firm's books and papers go: proposals, which the firm may change. */
export interface OfCountry {
  /** ISO 4217 */
  currency: string
  /** BCP 47: how days and figures are written in English there */
  locale: string
  /** IANA, the one where most people live first */
  timeZones: string[]
  taxMode: TaxMode
  /** what the tax on sales is called; empty where there is none */
  taxName: string
}
const words = (text: string) => new Set(text.split(' '))

/**
 * Where most people live, in countries of several zones.
 * Source: IANA time zone database, zone1970.tab, which lists the most populous zone of a country first (from memory).
 */
const MAIN_ZONE: Readonly<Record<string, string>> = {
  ...{ AR: 'America/Argentina/Buenos_Aires', AU: 'Australia/Sydney', BR: 'America/Sao_Paulo' },
  ...{ CA: 'America/Toronto', CL: 'America/Santiago', CN: 'Asia/Shanghai', DE: 'Europe/Berlin' },
  ...{ EC: 'America/Guayaquil', ES: 'Europe/Madrid', ID: 'Asia/Jakarta', KZ: 'Asia/Almaty' },
  ...{ MN: 'Asia/Ulaanbaatar', MX: 'America/Mexico_City', MY: 'Asia/Kuala_Lumpur' },
  ...{ NZ: 'Pacific/Auckland', PT: 'Europe/Lisbon', RU: 'Europe/Moscow', UA: 'Europe/Kyiv' },
  ...{ US: 'America/New_York', UZ: 'Asia/Tashkent', CY: 'Asia/Nicosia' },
}
/** Prices are quoted before tax there, to private customers as well: common practice. */
const TAX_ADDED = words('US CA PR')
/** Common practice, from memory: what the tax on sales is called in English. */
const CALLED: readonly [name: string, countries: ReadonlySet<string>][] = [
  ['Sales tax', words('US PR')],
  ['GST', words('AU NZ CA IN SG MY PK PG MV BT')],
  ['Consumption tax', words('JP')],
  ['', words('KW QA HK MO BM KY IQ LY BN')],
]
/** The browser's and the server's Intl differ in how they tell it. */
type Region = Intl.Locale & { timeZones?: string[]; getTimeZones?: () => string[] }

function zonesOf(country: string): string[] {
  const region = new Intl.Locale(`und-${country}`) as Region
  const all = region.getTimeZones?.() ?? region.timeZones ?? []
  const main = MAIN_ZONE[country]
  return main ? [main, ...all.filter((zone) => zone !== main)] : all
}
/** English as it is written there, where anybody has said how; else day, month, year and the week from Monday. */
function localeOf(country: string): string {
  const wanted = `en-${country}`
  return new Intl.DateTimeFormat(wanted).resolvedOptions().locale === wanted && country !== 'JP'
    ? wanted
    : 'en-GB'
}
/**
 * What is proposed to a firm that begins in a country; null where we keep no books in its currency.
 * @param country ISO 3166-1 alpha-2
 * @example ofCountry('JP')?.currency // 'JPY'
 * @example ofCountry('US')?.timeZones[0] // 'America/New_York'
 * Sources: the package country-to-currency (ISO 4217 by ISO 3166), Unicode CLDR by Intl for zones and locales.
 */
export function ofCountry(country: string): OfCountry | null {
  const currency = (currencies as Readonly<Record<string, string>>)[country]
  const timeZones = currency ? zonesOf(country) : []
  if (!currency || !timeZones.length || !isKnownCurrency(currency)) return null
  return {
    currency,
    locale: localeOf(country),
    timeZones,
    taxMode: TAX_ADDED.has(country) ? 'added' : 'included',
    taxName: CALLED.find(([, where]) => where.has(country))?.[0] ?? 'VAT',
  }
}

/**
 * The countries that a firm can begin in, by their names.
 * @param language BCP 47, of the names
 * @example countriesBy('en').find(({ code }) => code === 'JP') // { code: 'JP', name: 'Japan' }
 */
export function countriesBy(language: string): { code: string; name: string }[] {
  const names = new Intl.DisplayNames(language, { type: 'region' })
  return Object.keys(currencies)
    .filter((code) => ofCountry(code))
    .map((code) => ({ code, name: names.of(code)! }))
    .sort((a, b) => a.name.localeCompare(b.name, language))
}
