// What a firm begins with: what its country proposes, its code, its steps, its first list.
import { describe, expect, it } from 'vitest'
import { CODE_LENGTH, CODE_SIGNS, readCode, sayCode } from '../../core/access/beginCode'
import { isKnownCurrency } from '../../core/money/currencyExponent'
import { STARTER_LIST } from '../../core/pricebook/starterList'
import { firstSteps, missingFor, TASKS, type FirmFacts } from '../../core/settings/firstSteps'
import { countriesBy, ofCountry } from '../../core/settings/ofCountry'
import { isLocale } from '../../core/time/isLocale'
import { codedRates } from '../../core/tax/codedRates'
import { taxTotals } from '../../core/tax/taxTotals'
import { isOddRate, percentOfRate, rateOfPercent } from '../../core/tax/percentOfRate'

describe('ofCountry', () => {
  it.each([
    ['US', 'USD', 'en-US', 'America/New_York', 'added', 'Sales tax'],
    ['CA', 'CAD', 'en-CA', 'America/Toronto', 'added', 'GST'],
    ['GB', 'GBP', 'en-GB', 'Europe/London', 'included', 'VAT'],
    ['DE', 'EUR', 'en-DE', 'Europe/Berlin', 'included', 'VAT'],
    ['AU', 'AUD', 'en-AU', 'Australia/Sydney', 'included', 'GST'],
    ['JP', 'JPY', 'en-GB', 'Asia/Tokyo', 'included', 'Consumption tax'],
    ['KW', 'KWD', 'en-GB', 'Asia/Kuwait', 'included', ''],
  ])('%s: %s, %s, %s, %s %s', (country, currency, locale, zone, taxMode, taxName) => {
    const { timeZones, ...rest } = ofCountry(country)!
    expect(rest).toEqual({ currency, locale, taxMode, taxName })
    expect(timeZones[0]).toBe(zone)
  })
  it('proposes nothing where no books are kept, or nobody lives', () => {
    for (const country of ['XX', '', 'KP']) expect(ofCountry(country)).toBeNull()
  })
  it('proposes zones and locales that can be computed with', () => {
    for (const { code } of countriesBy('en')) {
      const { currency, locale, timeZones } = ofCountry(code)!
      expect(isKnownCurrency(currency)).toBe(true)
      for (const timeZone of timeZones)
        expect(() => new Intl.DateTimeFormat(locale, { timeZone })).not.toThrow()
    }
  })
  it('names countries in order of their names', () => {
    const names = countriesBy('en').map(({ name }) => name)
    expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b, 'en')))
    expect(names.length).toBeGreaterThan(150)
  })
})

describe('a code that is read and typed', () => {
  it('is said in groups, of signs that are not taken for each other', () => {
    const code = sayCode(Uint8Array.from({ length: CODE_LENGTH }, (_, i) => i * 21))
    expect(code).toMatch(/^[0-9A-Z]{4}-[0-9A-Z]{4}-[0-9A-Z]{4}$/)
    for (const sign of 'OILU') expect(CODE_SIGNS).not.toContain(sign)
  })
  it('is what was meant, however it is typed', () => {
    const code = sayCode(new Uint8Array(CODE_LENGTH).fill(1))
    for (const typed of [
      code,
      code.toLowerCase(),
      ` ${code.replaceAll('-', ' ')} `,
      'llll-iiii-1111',
    ])
      expect(readCode(typed)).toBe('111111111111')
    expect(readCode('oo')).toBe('00')
  })
})

const NEW: FirmFacts = {
  ...{ hasAddress: false, saysHowPaid: false, hasTaxes: false, hasMailed: false },
  ...{ hasNumbers: false, brought: 0 },
  ...{ bookable: 0, working: 0, areas: 0, entries: 0, customers: 0, booked: 0, billed: 0, paid: 0 },
}
describe('firstSteps', () => {
  it('has nothing done in a new firm, and something missing for each task', () => {
    const steps = firstSteps(NEW)
    expect(steps.filter(({ done }) => done)).toEqual([])
    for (const task of TASKS) expect(missingFor(steps, task)).not.toEqual([])
  })
  it('wants hours of everybody who is booked', () => {
    const hours = (bookable: number, working: number) =>
      missingFor(firstSteps({ ...NEW, bookable, working }), 'booking')
    expect(hours(2, 1)).toEqual(['hours'])
    expect(hours(2, 2)).toEqual([])
    expect(hours(0, 0)).toEqual(['people', 'hours'])
  })
  it('lets each task begin with what it needs, and with nothing else', () => {
    const ready = { ...NEW, hasAddress: true, saysHowPaid: true, hasTaxes: true, hasMailed: true }
    const steps = firstSteps(ready)
    expect(TASKS.map((task) => missingFor(steps, task).length)).toEqual([2, 1, 0, 0, 0])
  })
})

describe('STARTER_LIST', () => {
  it('begins with the hour, and has codes of its own', () => {
    expect(STARTER_LIST[0]).toMatchObject({ kind: 'labour', hours: 1, share: 1 })
    expect(new Set(STARTER_LIST.map(({ code }) => code)).size).toBe(STARTER_LIST.length)
  })
  it('prices tasks by their hours, and everything else by its share of one', () => {
    for (const { kind, hours, share } of STARTER_LIST)
      expect(kind === 'task' ? hours : share).toBeGreaterThan(0)
  })
})

describe('rates of tax as people write them', () => {
  it.each([
    ['0.075', '7.5'],
    ['0.04', '4'],
    ['0', '0'],
    ['0.08875', '8.875'],
  ])('%s is %s per cent, and back', (rate, percent) => {
    expect(percentOfRate(rate)).toBe(percent)
    expect(rateOfPercent(percent)).toBe(rate)
  })
  it.each([
    ['0', false],
    ['0.9', true],
    ['1', false],
    ['40', false],
    ['40.1', true],
    ['70', true],
  ])('%s per cent is looked at again: %s', (percent, odd) => {
    expect(isOddRate(percent)).toBe(odd)
  })
})

describe('isLocale', () => {
  it.each([
    ['en-GB', true],
    ['de', true],
    ['no such way', false],
    ['', false],
    ['xx-XX', false],
  ])('%j: %s', (locale, is) => {
    expect(isLocale(locale)).toBe(is)
  })
})

describe('codedRates', () => {
  const fresh = (name: string, taken: readonly string[]) =>
    taken.includes(name) ? `${name}-2` : name
  const goods = { code: 'VAT', name: 'VAT', rate: '0.2' }
  const sums = (work: { name: string; rate: string }) => {
    const taxes = codedRates([work], [goods], fresh)
    const lines = [
      { netMinor: 10_000, taxes: [goods] },
      { netMinor: 10_000, taxes },
    ]
    return taxTotals(lines, 'added', 'EUR').map(({ taxMinor }) => taxMinor)
  }
  it('makes one tax of one name at one rate', () => {
    expect(sums({ name: 'vat', rate: '0.2' })).toEqual([4000])
  })
  it('makes two of one name at two rates: each is taken at its own', () => {
    expect(sums({ name: 'VAT', rate: '0.05' })).toEqual([2000, 500])
  })
})
