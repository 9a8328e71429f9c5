// Quotes: the states are facts of the trade (common practice); the days are counted against the calendar.
import { describe, expect, it } from 'vitest'
import { quoteState } from '../../core/quotes/quoteState'
import { whyQuoteWaits } from '../../core/quotes/whyQuoteWaits'
import { workOrderState } from '../../core/visits/workOrderState'
import { sayMoney } from '../../core/money/sayMoney'

describe('a quote’s state', () => {
  it('holds its price through the last day, and not a day longer', () => {
    expect(quoteState({ state: 'sent', expiresOn: '2026-11-24' }, '2026-11-24')).toBe('sent')
    expect(quoteState({ state: 'sent', expiresOn: '2026-11-23' }, '2026-11-24')).toBe('expired')
  })
  it.each(['draft', 'accepted', 'declined'] as const)('%s does not expire', (state) =>
    expect(quoteState({ state, expiresOn: '2020-01-01' }, '2026-11-24')).toBe(state),
  )
})
describe('why a quote waits', () => {
  const base = { createdOn: '2026-11-01', expiresOn: '2026-12-24', openedOn: null }
  it.each([
    [
      { ...base, createdOn: '2026-11-24', state: 'draft', sentOn: null },
      'begun today, not sent',
      false,
    ],
    [
      { ...base, createdOn: '2026-11-22', state: 'draft', sentOn: null },
      'begun 2 days ago, not sent',
      false,
    ],
    [
      { ...base, createdOn: '2026-11-21', state: 'draft', sentOn: null },
      'begun 3 days ago, not sent',
      true,
    ],
    [{ ...base, state: 'sent', sentOn: '2026-11-18' }, 'sent 6 days ago, no answer', false],
    [
      { ...base, state: 'sent', sentOn: '2026-11-18', openedOn: '2026-11-23' },
      'sent 6 days ago, read yesterday, no answer',
      false,
    ],
    [{ ...base, state: 'sent', sentOn: '2026-11-17' }, 'sent 7 days ago, no answer', true],
    [
      { ...base, state: 'sent', sentOn: '2026-11-23', expiresOn: '2026-11-27' },
      'the price is held for 3 days more, no answer',
      true,
    ],
    [
      { ...base, state: 'sent', sentOn: '2026-11-23', expiresOn: '2026-11-24' },
      'the price is held until today, no answer',
      true,
    ],
    [
      { ...base, state: 'sent', sentOn: '2026-10-23', expiresOn: '2026-11-23' },
      'its price was held until yesterday: ask, and send it anew',
      true,
    ],
    [{ ...base, state: 'accepted', sentOn: '2026-11-02' }, '', false],
  ] as const)('%o', (quote, text, late) =>
    expect(whyQuoteWaits(quote, '2026-11-24')).toEqual({ text, late }),
  )
})
it('a visited work order that was quoted waits among the quotes, until something is done or billed on it', () => {
  const facts = {
    cancelled: false,
    closed: false,
    visits: [{ state: 'finished' as const, placed: true }],
    toBillMinor: 0,
    billedMinor: 0,
    unpaidMinor: 0,
  }
  expect(workOrderState({ ...facts, quoted: true })).toBe('closed')
  expect(workOrderState({ ...facts, quoted: false })).toBe('to_bill')
  expect(workOrderState({ ...facts, quoted: true, toBillMinor: 4900 })).toBe('to_bill')
  expect(
    workOrderState({ ...facts, quoted: true, visits: [{ state: 'planned', placed: true }] }),
  ).toBe('scheduled')
})
it('money is said without passing through a float', () => {
  expect(sayMoney({ amount: '1759.80', currency: 'USD' }, 'en-US')).toBe('$1,759.80')
  // ISO 4217: yen have no decimals, dinars three.
  expect(sayMoney({ amount: '1759', currency: 'JPY' }, 'en-GB')).toBe('¥1,759')
  expect(sayMoney({ amount: '12.500', currency: 'KWD' }, 'en-GB')).toBe('KWD 12.500')
  expect(sayMoney({ amount: '1759', currency: 'JPY' }, 'en-US', false)).toBe('1,759')
  expect(sayMoney({ amount: '1.250', currency: 'KWD' }, 'en-US', false)).toBe('1.250')
  expect(sayMoney({ amount: '1759.8', currency: 'USD' }, 'en-US', false)).toBe('1,759.80')
  expect(sayMoney({ amount: '9007199254740993.01', currency: 'USD' }, 'en-US')).toBe(
    '$9,007,199,254,740,993.01',
  )
})
