// Which rates hold when and where.
import { describe, expect, it } from 'vitest'
import { codedRates } from '../../core/tax/codedRates'
import { ratesOn, saidTwice, type KeptRate } from '../../core/tax/ratesOn'
import { taxTotals } from '../../core/tax/taxTotals'

const at = (day: string, postcode = '') => ({ day, postcode })
const vat: KeptRate = { code: 'vat', name: 'VAT', rate: '0.19' }

describe('the rates that hold', () => {
  // German VAT: 16 instead of 19 per cent from 1 July to 31 December 2020 (§ 28 UStG; Zweites Corona-Steuerhilfegesetz).
  const german = [
    vat,
    { ...vat, code: 'vat-2', rate: '0.16', from: '2020-07-01' },
    { ...vat, from: '2021-01-01' },
  ]
  it.each([
    ['2020-06-30', '0.19'],
    ['2020-07-01', '0.16'],
    ['2020-12-31', '0.16'],
    ['2021-01-01', '0.19'],
  ])('on %s: VAT at %s', (day, rate) =>
    expect(ratesOn(german, at(day))).toEqual([expect.objectContaining({ name: 'VAT', rate })]),
  )
  it('are those that were told last, in whatever order they are kept', () =>
    expect(ratesOn([...german].reverse(), at('2020-08-01'))[0]!.rate).toBe('0.16'))
  it('end where an end is told', () => {
    const levy = { code: 'levy', name: 'Levy', rate: '0.01', until: '2026-12-31' }
    expect(ratesOn([vat, levy], at('2026-12-31'))).toHaveLength(2)
    expect(ratesOn([vat, levy], at('2027-01-01'))).toHaveLength(1)
  })
  it('are charged only where the postcode begins so, however it is written', () => {
    const county = { code: 'county', name: 'County', rate: '0.02', postcodes: ['803', 'W1 '] }
    expect(ratesOn([county], at('2026-01-01', '80301'))).toHaveLength(1)
    expect(ratesOn([county], at('2026-01-01', 'w1a 0ax'))).toHaveLength(1)
    expect(ratesOn([county], at('2026-01-01', '80202'))).toEqual([])
    expect(ratesOn([county], at('2026-01-01'))).toEqual([])
  })
  it('of a place are as they are there, also where another place has the same tax', () => {
    const rates = [
      { code: 'city', name: 'City', rate: '0.03', postcodes: ['802'] },
      { code: 'city-2', name: 'City', rate: '0.04', postcodes: ['803'] },
    ]
    expect(ratesOn(rates, at('2026-01-01', '80301'))[0]!.code).toBe('city-2')
  })
  it('say nothing of when and where they hold', () =>
    expect(ratesOn([{ ...vat, from: '2020-01-01' }], at('2026-01-01'))).toEqual([vat]))
  it('are added up apart where one tax has two rates on one paper', () => {
    const [before] = ratesOn(german, at('2020-06-30'))
    const [after] = ratesOn(german, at('2020-07-01'))
    const lines = [before!, after!].map((tax) => ({ netMinor: 10_000, taxes: [tax] }))
    expect(taxTotals(lines, 'added', 'EUR').map(({ taxMinor }) => taxMinor)).toEqual([1900, 1600])
  })
})

describe('a tax that is said twice', () => {
  it('is one with the same day and place', () => {
    expect(saidTwice([{ name: 'VAT' }, { name: 'vat' }])).toBe(1)
    expect(saidTwice([{ name: 'VAT' }, { name: 'VAT', from: '2027-01-01' }])).toBe(-1)
    expect(
      saidTwice([
        { name: 'City', postcodes: ['802', '803'] },
        { name: 'City', postcodes: ['803', '802'] },
      ]),
    ).toBe(1)
    expect(
      saidTwice([
        { name: 'City', postcodes: ['802'] },
        { name: 'City', postcodes: ['803'] },
      ]),
    ).toBe(-1)
  })
})

describe('the codes of rates', () => {
  it('are one for a tax that comes back at the rate that it had, and keep what is said of it', () => {
    const fresh = (name: string, taken: readonly string[]) => `${name}-${taken.length}`
    const said = [
      { name: 'VAT', rate: '0.19' },
      { name: 'VAT', rate: '0.16', from: '2020-07-01', until: '2020-12-31' },
      { name: 'VAT', rate: '0.19', from: '2021-01-01', postcodes: ['8'] },
    ]
    const coded = codedRates(said, [], fresh)
    expect(coded.map(({ code }) => code)).toEqual(['VAT-0', 'VAT-1', 'VAT-0'])
    expect(coded.map(({ code: _, ...rest }) => rest)).toEqual(said)
  })
})
