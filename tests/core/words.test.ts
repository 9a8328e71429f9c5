// How figures are said in a locale, which class of taxes is usual, and lines that are folded for cards and calendars.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { ENTRY_KINDS, LINE_KINDS } from '../../core/pricebook/kinds'
import { TAXED_AS, taxedAs, usualTaxClass } from '../../core/pricebook/usualTaxClass'
import { sayMoney, sayUnitPrice } from '../../core/money/sayMoney'
import { foldLine } from '../../core/text/foldLine'
import { numberFormat, sayQuantity, sayRate } from '../../core/text/sayNumber'
import { eachWorkWord, WORK_WORD_NAMES, WORK_WORDS } from '../../core/visits/workWords'

const LOCALES = ['en-US', 'en-GB', 'de-DE', 'fr-FR', 'pt-BR', 'ja-JP', 'sv-SE']
// The signs of each locale are those of CLDR, as Intl has them: what is tested is that no digit is lost on the way.
const SIGNS = new Map(
  LOCALES.map((locale) => {
    const parts = new Intl.NumberFormat(locale).formatToParts(1_234_567.8)
    const sign = (type: string) => parts.find((part) => part.type === type)!.value
    return [locale, { group: sign('group'), decimal: sign('decimal') }] as const
  }),
)
const readBack = (said: string, locale: string) => {
  const { group, decimal } = SIGNS.get(locale)!
  return said.replaceAll(group, '').replace(decimal, '.')
}
const quantity = fc
  .tuple(fc.integer({ min: 0, max: 999_999_999 }), fc.integer({ min: 0, max: 999 }))
  .map(([whole, thousandths]) => `${whole}.${String(thousandths).padStart(3, '0')}`)

describe('a quantity', () => {
  test.prop([quantity, fc.constantFrom(...LOCALES)])(
    'is read back as it was, in any locale',
    (of, locale) => {
      const plain = of.replace(/\.?0+$/, '')
      expect(readBack(sayQuantity(of, locale), locale)).toBe(plain)
    },
  )
  it('keeps digits that no float has', () =>
    expect(sayQuantity('999999999999999.125', 'en-US')).toBe('999,999,999,999,999.125'))
  it('says no decimals that say nothing', () =>
    expect([sayQuantity('2.000', 'en-US'), sayQuantity('2.500', 'de-DE')]).toEqual(['2', '2,5']))
})
describe('a rate', () => {
  it.each([
    ['0.0725', 'en-US', '7.25%'],
    ['0.055', 'en-US', '5.5%'],
    ['0.19', 'de-DE', '19\u00a0%'],
    ['0', 'en-US', '0%'],
  ])('%s in %s', (rate, locale, said) => expect(sayRate(rate, locale)).toBe(said))
})
describe('a sum', () => {
  it.each([
    ['1759.80', 'USD', 'en-US', '$1,759.80'],
    ['1759', 'JPY', 'ja-JP', '￥1,759'],
    ['1.234', 'KWD', 'en-US', 'KWD\u00a01.234'],
  ])('%s %s in %s', (amount, currency, locale, said) =>
    expect(sayMoney({ amount, currency }, locale)).toBe(said),
  )
  it('without its sign has the decimals of its currency all the same', () =>
    expect([
      sayMoney({ amount: '5', currency: 'USD' }, 'en-US', false),
      sayMoney({ amount: '5', currency: 'JPY' }, 'en-US', false),
    ]).toEqual(['5.00', '5']))
  it('for one has further decimals where they say something', () =>
    expect([
      sayUnitPrice('0.0350', 'USD', 'en-US'),
      sayUnitPrice('2', 'USD', 'de-DE'),
      sayUnitPrice('2', 'JPY', 'en-US'),
    ]).toEqual(['0.035', '2,00', '2']))
})
it('a format is made once', () => {
  const as = { maximumFractionDigits: 2 }
  expect(numberFormat('en-US', as)).toBe(numberFormat('en-US', { ...as }))
  expect(numberFormat('de-DE', as)).not.toBe(numberFormat('en-US', as))
})

describe('how something is usually taxed', () => {
  it('every kind of line and of entry has an answer', () => {
    for (const kind of [...LINE_KINDS, ...ENTRY_KINDS]) expect(TAXED_AS).toContain(taxedAs(kind))
  })
  it('what is done is work, what is handed over goods', () =>
    expect([taxedAs('labour'), taxedAs('charge'), taxedAs('part'), taxedAs('other')]).toEqual([
      'work',
      'work',
      'goods',
      'goods',
    ]))
  const named = [
    { id: 'none', usualFor: null },
    { id: 'full', usualFor: 'goods' as const },
    { id: 'less', usualFor: 'work' as const },
  ]
  it('is the class that the firm named for it', () =>
    expect([usualTaxClass(named, 'goods'), usualTaxClass(named, 'work')]).toEqual(['full', 'less']))
  it('is the first one where none is named, in whatever order they are told', () => {
    const two = [
      { id: 'b', usualFor: null },
      { id: 'a', usualFor: null },
    ]
    expect([usualTaxClass(two, 'work'), usualTaxClass(two.toReversed(), 'work')]).toEqual([
      'a',
      'a',
    ])
  })
  it('is none in a firm that has none', () => expect(usualTaxClass([], 'work')).toBeNull())
})

describe('a folded line', () => {
  const octets = (text: string) => new TextEncoder().encode(text).length
  // Source: RFC 5545 §3.1: lines of at most 75 octets, continued by one blank.
  test.prop([fc.string({ unit: 'grapheme', maxLength: 400 })])(
    'is 75 octets at most, and unfolds to what it was',
    (text) => {
      fc.pre(!/[\r\n]/.test(text))
      const folded = foldLine(text)
      for (const line of folded.split('\r\n')) expect(octets(line)).toBeLessThanOrEqual(75)
      expect(folded.replaceAll('\r\n ', '')).toBe(text)
    },
  )
  it('is never broken within a sign', () => {
    const folded = foldLine('N:' + '🏡'.repeat(60))
    expect(folded).not.toContain('\ufffd')
    expect(folded.split('\r\n ').every((line) => [...line].length > 0)).toBe(true)
  })
})

describe('the words of a work order', () => {
  it('are each in a column of their own', () => {
    const columns = WORK_WORD_NAMES.map((word) => WORK_WORDS[word].column)
    expect(new Set(columns).size).toBe(columns.length)
  })
  it('have something for each of them', () =>
    expect(Object.keys(eachWorkWord(() => ''))).toEqual([...WORK_WORD_NAMES]))
})
