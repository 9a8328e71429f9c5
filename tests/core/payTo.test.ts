// How a firm is paid: account numbers by ISO 13616, banks by ISO 9362, and what a paper says of it.
import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { isBic, isIban, payToWords, readIban } from '../../core/payments/payTo'

// ISO 13616 and the registry's own examples, as published by its registration authority (from memory).
const VALID = ['GB82WEST12345698765432', 'DE89370400440532013000', 'FR1420041010050500013M02606']
describe('an IBAN', () => {
  it.each(VALID)('of the registry is one: %s', (iban) => expect(isIban(iban)).toBe(true))
  it('is read as people write it', () => {
    expect(readIban(' de89 3704 0044 0532 0130 00 ')).toBe('DE89370400440532013000')
    expect(readIban('')).toBe('')
  })
  it('is none with one figure otherwise: two check digits by mod 97-10 see every such mistake', () => {
    fc.assert(
      fc.property(fc.nat({ max: 15 }), fc.integer({ min: 1, max: 9 }), (at, by) => {
        const place = 6 + at
        const figure = (Number(VALID[1]![place]) + by) % 10
        expect(isIban(VALID[1]!.slice(0, place) + figure + VALID[1]!.slice(place + 1))).toBe(false)
      }),
    )
  })
  it('is none of another length, of no country, or of nothing', () => {
    for (const wrong of ['DE8937040044053201300', 'ZZ89370400440532013000', 'DE', ''])
      expect(isIban(wrong)).toBe(false)
  })
})
describe('a BIC', () => {
  it('has eight or eleven signs', () => {
    expect(['DEUTDEFF', 'DEUTDEFF500', 'DEUTDEF', 'DEUTDEFF50'].map(isBic)).toEqual([
      ...[true, true, false, false],
    ])
  })
})
describe('what a paper says of how it is paid', () => {
  const firm = { payTo: '', name: 'Reed', payee: '', bank: '', iban: '', bic: '', chequeName: '' }
  it('is what the firm has', () => {
    expect(payToWords(firm)).toBe('')
    expect(payToWords({ ...firm, payTo: 'In cash', chequeName: 'T. Reed' })).toBe(
      'In cash\nCheques to T. Reed',
    )
  })
  it('has the account in groups of four, with whose it is', () => {
    const account = { ...firm, iban: VALID[0]!, bic: 'WESTGB22', bank: 'West Bank' }
    expect(payToWords(account)).toBe(
      'By transfer to Reed, West Bank, IBAN GB82 WEST 1234 5698 7654 32, BIC WESTGB22',
    )
    expect(payToWords({ ...account, payee: 'Reed & Daughters Ltd' })).toContain(
      'By transfer to Reed & Daughters Ltd',
    )
  })
})
