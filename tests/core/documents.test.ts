import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { discountOf } from '../../core/documents/discountOf'
import { documentTotals } from '../../core/documents/documentTotals'
import { invoiceState } from '../../core/invoices/invoiceState'
import { lineNet } from '../../core/documents/lineNet'
import { dueDate, termsInWords } from '../../core/documents/dueDate'
import { margin, markup } from '../../core/documents/margin'
import { taxTotals, type TaxRate } from '../../core/tax/taxTotals'
import { minorToDecimal } from '../../core/money/formatMinor'

const five = { code: 'vat', name: 'Tax', rate: '0.05' }
const state = { code: 'state', name: 'State', rate: '0.04' }
const county = { code: 'county', name: 'County', rate: '0.025' }
const line = (net: number, taxes: readonly TaxRate[] = [five]) => ({
  quantity: '1',
  unitPrice: minorToDecimal(net, 'USD'),
  taxes,
})

describe('lineNet', () => {
  // Common practice of the trade: 5 × 55.00 = 275.00; 2 × 1 000 + 10 × 53 = 2 530.00.
  it('multiplies and rounds once', () =>
    expect(lineNet({ quantity: '5', unitPrice: '55.00' }, 'USD')).toBe(27500))
  it('adds up as on paper', () =>
    expect(
      lineNet({ quantity: '2', unitPrice: '1000' }, 'USD') +
        lineNet({ quantity: '10', unitPrice: '53' }, 'USD'),
    ).toBe(253000))
  it('takes a percentage and an amount off', () =>
    expect(lineNet({ quantity: '1', unitPrice: '520.05', discountRate: '0.15' }, 'USD')).toBe(
      44204,
    ))
  it('rounds half away from zero', () =>
    expect(lineNet({ quantity: '1.5', unitPrice: '134.95' }, 'USD')).toBe(20243))
})

describe('documentTotals', () => {
  it('adds tax on the sum, once for each rate', () =>
    expect(documentTotals([line(253000)], { mode: 'added', currency: 'USD' })).toMatchObject({
      taxMinor: 12650,
      totalMinor: 265650,
      payableMinor: 265650,
    }))
  it('withholds: the total stays, less is payable', () =>
    expect(documentTotals([line(253000)], { mode: 'withheld', currency: 'USD' })).toMatchObject({
      taxMinor: 12650,
      totalMinor: 253000,
      payableMinor: 240350,
    }))
  it('takes tax out of a gross price', () =>
    expect(documentTotals([line(10500)], { mode: 'included', currency: 'USD' })).toMatchObject({
      taxMinor: 500,
      netMinor: 10000,
      totalMinor: 10500,
    }))
  it('splits two taxes out of a gross price without losing a cent', () => {
    const t = documentTotals([line(9999, [state, county])], { mode: 'included', currency: 'USD' })
    expect(t.netMinor + t.taxMinor).toBe(9999)
  })
  it('lets an exempt customer pay none', () =>
    expect(
      documentTotals([line(253000)], { mode: 'added', currency: 'USD', exempt: true }),
    ).toMatchObject({ taxMinor: 0, totalMinor: 253000 }))
  it('shares a document discount before tax', () =>
    expect(
      documentTotals([line(6000), line(4000)], {
        mode: 'added',
        currency: 'USD',
        discountMinor: 1000,
      }),
    ).toMatchObject({ lineBases: [5400, 3600], taxMinor: 450, totalMinor: 9450 }))
  it('refuses a discount larger than the lines', () =>
    expect(() =>
      documentTotals([line(100)], { mode: 'added', currency: 'USD', discountMinor: 101 }),
    ).toThrow(RangeError))
  it('is nothing for nothing', () =>
    expect(documentTotals([], { mode: 'added', currency: 'USD' })).toMatchObject({
      netMinor: 0,
      totalMinor: 0,
      taxes: [],
    }))
  const anyLine = fc.record({
    net: fc.integer({ min: 0, max: 5_000_000 }),
    taxes: fc.constantFrom([five], [state, county], []),
  })
  // Source: EN 16931-1, BR-CO-10 (sum of line nets), BR-CO-13 (less allowances), BR-CO-15 (plus tax), BR-CO-16 (payable), BR-CO-17 (tax per category).
  test.prop([fc.array(anyLine, { minLength: 1, maxLength: 30 }), fc.integer({ min: 0, max: 100 })])(
    'obeys BR-CO-10, 13, 15, 16 and 17 with a tolerance of zero',
    (lines, percent) => {
      const sum = lines.reduce((a, l) => a + l.net, 0)
      const discountMinor = Math.floor((sum * percent) / 100)
      const t = documentTotals(
        lines.map((l) => line(l.net, l.taxes)),
        { mode: 'added', currency: 'USD', discountMinor },
      )
      expect(t.lineNets.reduce((a, b) => a + b, 0)).toBe(sum)
      expect(t.netMinor).toBe(sum - discountMinor)
      expect(t.totalMinor).toBe(t.netMinor + t.taxes.reduce((a, x) => a + x.taxMinor, 0))
      expect(t.payableMinor).toBe(t.totalMinor)
      for (const tax of t.taxes)
        expect(tax.taxMinor).toBe(
          Number(
            (BigInt(tax.baseMinor) * BigInt(Math.round(Number(tax.rate) * 1000)) * 2n + 1000n) /
              2000n,
          ),
        )
    },
  )
  test.prop([fc.array(anyLine, { minLength: 1, maxLength: 12 })])(
    'keeps gross prices whole: base and taxes sum to what was charged',
    (lines) => {
      const t = documentTotals(
        lines.map((l) => line(l.net, l.taxes)),
        { mode: 'included', currency: 'USD' },
      )
      expect(t.netMinor + t.taxMinor).toBe(lines.reduce((a, l) => a + l.net, 0))
    },
  )
})
describe('tax inside the price', () =>
  it('does not depend on the order in which a class lists its rates', () => {
    const both = (first: typeof county, second: typeof county) =>
      taxTotals(
        [
          { netMinor: 1, taxes: [county, state] },
          { netMinor: 8, taxes: [first, second] },
        ],
        'included',
        'USD',
      ).reduce((sum, t) => sum + t.taxMinor, 0)
    expect(both(state, county)).toBe(both(county, state))
  }))
describe('taxTotals', () =>
  it('keeps the order in which rates appear', () =>
    expect(
      taxTotals(
        [
          { netMinor: 100, taxes: [county] },
          { netMinor: 100, taxes: [state] },
        ],
        'added',
        'USD',
      ).map((t) => t.code),
    ).toEqual(['county', 'state'])))

describe('dueDate', () => {
  // Common practice: from 1 September, 15, 30 and 45 days are 16 September, 1 October and 16 October.
  it.each([
    [15, '2026-09-16'],
    [30, '2026-10-01'],
    [45, '2026-10-16'],
  ])('%i days', (days, due) => expect(dueDate('2026-09-01', { kind: 'days', days })).toBe(due))
  it.each([
    [{ kind: 'receipt' }, '2026-01-31'],
    [{ kind: 'month_end', days: 0 }, '2026-01-31'],
    [{ kind: 'month_end', days: 10 }, '2026-02-10'],
    [{ kind: 'next_month_day', day: 31 }, '2026-02-28'],
    [{ kind: 'date', date: '2026-03-03' }, '2026-03-03'],
  ] as const)('%j from 31 January is %s', (terms, due) =>
    expect(dueDate('2026-01-31', terms)).toBe(due),
  )
  it('refuses a day that is none', () =>
    expect(() => dueDate('2026-02-30x', { kind: 'receipt' })).toThrow(RangeError))
  it.each([
    [{ kind: 'receipt' }, 'due on receipt'],
    [{ kind: 'days', days: 15 }, '15 days'],
    [{ kind: 'month_end', days: 0 }, 'end of month'],
    [{ kind: 'next_month_day', day: 5 }, 'day 5 of next month'],
  ] as const)('says %j as %s', (terms, words) => expect(termsInWords(terms)).toBe(words))
})
describe('margin and markup', () => {
  // Common practice; m ÷ (1 + m): a markup of 25, 50, 100 % is a margin of 20, 33.33, 50 %.
  it.each([
    [12500, 10000, 0.2, 0.25],
    [15000, 10000, 0.3333, 0.5],
    [10000, 5000, 0.5, 1],
  ])('net %i, cost %i', (net, cost, m, u) =>
    expect([margin(net, cost), markup(net, cost)]).toEqual([m, u]),
  )
  it('is unknown without a net or a cost', () =>
    expect([margin(0, 5), markup(5, 0)]).toEqual([null, null]))
})
describe('discountOf', () => {
  // Common practice of the trade: a tenth of 89.55 is 8.955, half away from zero 8.96.
  it.each([
    ['10 %', 896],
    ['10%', 896],
    ['2.5 %', 224],
    ['100 %', 8955],
    ['0 %', 0],
    ['12.50', 1250],
    ['$1,000', 100000],
    ['100.01 %', null],
    ['-5', null],
    ['ten', null],
    ['12,5', null],
    ['', null],
  ])('“%s” takes %s off 89.55', (text, minor) => expect(discountOf(text, 8955, 'USD')).toBe(minor))
})

describe('invoiceState', () => {
  const fresh = { state: 'open', open: 5000, paid: 0, sent: false } as const
  // Common practice: money says more than the mail does, and a cancelled invoice is neither.
  it.each([
    [fresh, 'not_sent'],
    [{ ...fresh, sent: true }, 'sent'],
    [{ ...fresh, paid: 1000, open: 4000 }, 'part_paid'],
    [{ ...fresh, paid: 5000, open: 0, sent: true }, 'paid'],
    [{ ...fresh, state: 'written_off', open: 0 }, 'written_off'],
    [{ ...fresh, state: 'void', paid: 5000 }, 'void'],
  ] as const)('%j is %s', (invoice, said) => {
    expect(invoiceState(invoice)).toBe(said)
  })
})
