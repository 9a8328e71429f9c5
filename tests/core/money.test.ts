import { describe, expect, it } from 'vitest'
import { priceText } from '../../core/money/priceText'
import { fc, test } from '@fast-check/vitest'
import currencyCodes from 'currency-codes'
import { currencyExponent, knownCurrencies } from '../../core/money/currencyExponent'
import { roundToMinor } from '../../core/money/roundToMinor'
import { decimalToMinor, minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { shareAmount } from '../../core/money/shareAmount'

describe('currencyExponent', () => {
  // Source: ISO 4217 as the package currency-codes publishes it.
  it.each(knownCurrencies)('knows the exponent of %s as ISO 4217 has it', (code) =>
    expect(currencyExponent(code)).toBe(currencyCodes.code(code)!.digits),
  )
  it('refuses a code that it does not keep books in', () =>
    expect(() => currencyExponent('XXX')).toThrow(RangeError))
})

describe('roundToMinor', () => {
  // Source: half away from zero; decimal.js agrees with BigInt arithmetic on these.
  it.each([
    ['1.005', 'USD', 101],
    ['-2.345', 'USD', -235],
    ['2.345', 'USD', 235],
    ['202.425', 'USD', 20243],
    ['164.925', 'USD', 16493],
    ['1234.5', 'JPY', 1235],
    ['1.0005', 'KWD', 1001],
    ['-0.004', 'USD', 0],
  ] as const)('%s %s is %i minor units', (amount, currency, minor) =>
    expect(roundToMinor(amount, currency)).toBe(minor),
  )
  it('refuses what cannot be kept exactly', () =>
    expect(() => roundToMinor('99999999999999999', 'USD')).toThrow(RangeError))
  test.prop([fc.integer({ min: -1_000_000_000, max: 1_000_000_000 })])(
    'agrees with whole-number arithmetic for thousandths',
    (thousandths) => {
      const size = BigInt(Math.abs(thousandths))
      const expected = Number((size + 5n) / 10n) * Math.sign(thousandths)
      expect(roundToMinor((thousandths / 1000).toFixed(3), 'USD')).toBe(
        expected === 0 ? 0 : expected,
      )
    },
  )
})

describe('money on the wire', () => {
  it('is a decimal string with its currency', () =>
    expect(toMoney(33835, 'USD')).toEqual({ amount: '338.35', currency: 'USD' }))
  it.each([
    ['JPY', 500, '500'],
    ['KWD', 1500, '1.500'],
    ['USD', -5, '-0.05'],
  ] as const)('%s %i reads %s', (currency, minor, text) =>
    expect(minorToDecimal(minor, currency)).toBe(text),
  )
  it('refuses more decimals than the currency has instead of rounding', () =>
    expect(() => decimalToMinor('1.005', 'USD')).toThrow(/2 decimals/))
  it.each(['', 'abc', '1e5', '1,5', 'NaN', '--1'])('refuses %j', (text) =>
    expect(() => decimalToMinor(text, 'USD')).toThrow(RangeError),
  )
  test.prop([fc.integer({ min: -1e12, max: 1e12 }), fc.constantFrom('USD', 'JPY', 'KWD')])(
    'goes there and back',
    (minor, currency) => {
      expect(decimalToMinor(minorToDecimal(minor, currency), currency)).toBe(
        minor === 0 ? 0 : minor,
      )
    },
  )
})

describe('shareAmount', () => {
  it('shares 100.00 in three', () =>
    expect(shareAmount(10000, [1, 1, 1])).toEqual([3334, 3333, 3333]))
  it('mirrors a negative amount', () =>
    expect(shareAmount(-10000, [1, 1, 1])).toEqual([-3334, -3333, -3333]))
  it('shares nothing over nobody', () => expect(shareAmount(100, [])).toEqual([]))
  it('treats weights of zero as equal', () => expect(shareAmount(3, [0, 0])).toEqual([2, 1]))
  it('refuses a weight below zero', () => expect(() => shareAmount(1, [-1, 2])).toThrow(RangeError))
  test.prop([
    fc.integer({ min: -1e9, max: 1e9 }),
    fc.array(fc.integer({ min: 0, max: 1e6 }), { minLength: 1, maxLength: 20 }),
  ])('sums to the amount, and no part is off by a unit', (amount, weights) => {
    const parts = shareAmount(amount, weights)
    expect(parts.reduce((a, b) => a + b, 0)).toBe(amount)
    const total = weights.reduce((a, b) => a + b, 0)
    parts.forEach((part, i) =>
      expect(
        Math.abs(part - (total ? (amount * weights[i]!) / total : amount / weights.length)),
      ).toBeLessThan(1 + 1e-6),
    )
  })
})
it.each([
  ['128', '128.00'],
  ['128.0000', '128.00'],
  ['0.035', '0.035'],
  ['12.5', '12.50'],
  ['1.2345', '1.2345'],
])('the price %s is shown as %s', (price, shown) => expect(priceText(price)).toBe(shown))
