import { labourCost } from '../../core/costing/labourCost'
import { beyondAgreedMinor, notAgreedMinor } from '../../core/costing/notAgreedMinor'
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { quantileSorted } from 'd3'
import { ageing, bucketOf, daysLate } from '../../core/collections/ageing'
import { paymentHabit, quantile } from '../../core/collections/paymentHabit'
import { worklist, type Debtor } from '../../core/collections/worklist'
import { paidByLine } from '../../core/costing/paidByLine'
import { workOrderAccount } from '../../core/costing/workOrderAccount'
import { balanced, invoiceEntry, paymentEntry, reversal } from '../../core/ledger/entries'
import { applyPayment } from '../../core/payments/applyPayment'
import { writeCsv } from '../../core/formats/csv'
import { writeEntry, writeJournalHead } from '../../core/formats/journal'
import { digits, searchKey } from '../../core/text/searchKey'

describe('ledger entries', () => {
  it('posts an invoice', () =>
    expect(
      invoiceEntry({
        totalMinor: 10650,
        taxMinor: 650,
        income: [
          { account: 'incomeTask', amountMinor: 8000 },
          { account: 'incomePart', amountMinor: 2000 },
        ],
      }),
    ).toEqual([
      { account: 'receivable', amountMinor: 10650 },
      { account: 'tax', amountMinor: -650 },
      { account: 'incomeTask', amountMinor: -8000 },
      { account: 'incomePart', amountMinor: -2000 },
    ]))
  it('puts what is left of a payment into deposits', () =>
    expect(paymentEntry({ account: 'cash', amountMinor: 100, appliedMinor: 60 })).toEqual([
      { account: 'cash', amountMinor: 100 },
      { account: 'receivable', amountMinor: -60 },
      { account: 'deposits', amountMinor: -40 },
    ]))
  it('refuses an entry that is out by a cent', () =>
    expect(() =>
      balanced([
        { account: 'cash', amountMinor: 100 },
        { account: 'receivable', amountMinor: -99 },
      ]),
    ).toThrow(/balance/))
  it('refuses fractions of a cent', () =>
    expect(() =>
      balanced([
        { account: 'cash', amountMinor: 0.5 },
        { account: 'bank', amountMinor: -0.5 },
      ]),
    ).toThrow(RangeError))
  test.prop([fc.integer({ min: 1, max: 1e9 }), fc.integer({ min: 0, max: 100 })])(
    'a reversal undoes an entry',
    (amount, percent) => {
      const entry = paymentEntry({
        account: 'bank',
        amountMinor: amount,
        appliedMinor: Math.floor((amount * percent) / 100),
      })
      expect(entry.concat(reversal(entry)).reduce((sum, p) => sum + p.amountMinor, 0)).toBe(0)
      for (const p of entry)
        expect(reversal(entry)).toContainEqual({ account: p.account, amountMinor: -p.amountMinor })
    },
  )
})
describe('applyPayment', () => {
  const invoice = (id: string, dueOn: string, balanceMinor: number) => ({
    id,
    number: id,
    dueOn,
    balanceMinor,
  })
  // Common practice: cash 100.00 and a cheque for the rest pay 520.05 as 100.00 + 420.05.
  it('leaves the rest for the cheque', () => {
    expect(applyPayment(10000, [invoice('a', '2026-11-01', 52005)])).toEqual({
      applied: [{ id: 'a', amountMinor: 10000 }],
      leftMinor: 0,
    })
    expect(applyPayment(42005, [invoice('a', '2026-11-01', 42005)]).leftMinor).toBe(0)
  })
  it('pays the oldest due first', () =>
    expect(
      applyPayment(150, [invoice('b', '2026-11-02', 100), invoice('a', '2026-11-01', 100)]).applied,
    ).toEqual([
      { id: 'a', amountMinor: 100 },
      { id: 'b', amountMinor: 50 },
    ]))
  it('pays the chosen ones when told', () =>
    expect(
      applyPayment(150, [invoice('a', '2026-11-01', 100), invoice('b', '2026-11-02', 100)], ['b']),
    ).toEqual({ applied: [{ id: 'b', amountMinor: 100 }], leftMinor: 50 }))
  it('pays an invoice once that is named twice', () =>
    expect(applyPayment(15975, [invoice('a', '2026-11-01', 10650)], ['a', 'a'])).toEqual({
      applied: [{ id: 'a', amountMinor: 10650 }],
      leftMinor: 5325,
    }))
  it.each([0, -5, 1.5])('refuses %d', (amount) =>
    expect(() => applyPayment(amount, [])).toThrow(RangeError),
  )
  test.prop([
    fc.integer({ min: 1, max: 1e7 }),
    fc.array(fc.integer({ min: 0, max: 1e6 }), { maxLength: 12 }),
  ])('never goes beyond a balance and loses nothing', (amount, balances) => {
    const open = balances.map((b, i) =>
      invoice(String(i), `2026-01-${String(i + 1).padStart(2, '0')}`, b),
    )
    const { applied, leftMinor } = applyPayment(amount, open)
    expect(applied.reduce((sum, a) => sum + a.amountMinor, 0) + leftMinor).toBe(amount)
    for (const a of applied) expect(a.amountMinor).toBeLessThanOrEqual(balances[Number(a.id)]!)
  })
})
describe('ageing', () => {
  it.each([
    [-5, 'current'],
    [0, 'current'],
    [1, 'd1_30'],
    [30, 'd1_30'],
    [31, 'd31_60'],
    [60, 'd31_60'],
    [61, 'd61_90'],
    [90, 'd61_90'],
    [91, 'over90'],
  ] as const)('%i days late is %s', (late, bucket) => expect(bucketOf(late)).toBe(bucket))
  it('counts days over a clock change', () => expect(daysLate('2026-03-01', '2026-03-31')).toBe(30))
  it('keeps credits apart: buckets less credits is what is owed', () =>
    expect(
      ageing(
        [
          { customerId: 'a', dueOn: '2026-10-01', balanceMinor: 500 },
          { customerId: 'a', dueOn: '2026-12-01', balanceMinor: 300 },
        ],
        [{ customerId: 'a', amountMinor: 200 }],
        '2026-11-24',
      ),
    ).toEqual([
      {
        customerId: 'a',
        current: 300,
        d1_30: 0,
        d31_60: 500,
        d61_90: 0,
        over90: 0,
        creditsMinor: 200,
        owedMinor: 600,
        oldestLate: 54,
      },
    ]))
  it('leaves out who owes nothing', () => expect(ageing([], [], '2026-11-24')).toEqual([]))
})
describe('paymentHabit', () => {
  // Source: quantile of type 7; d3-array computes the same.
  it('agrees with d3 on the quantile', () =>
    expect(quantile([3, 6, 7, 8, 8, 10, 13, 15, 16, 20], 0.9)).toBeCloseTo(
      quantileSorted([3, 6, 7, 8, 8, 10, 13, 15, 16, 20], 0.9)!,
      12,
    ))
  it('is 16.4 for the published sample', () =>
    expect(quantile([3, 6, 7, 8, 8, 10, 13, 15, 16, 20], 0.9)).toBeCloseTo(16.4, 12))
  it('is unknown from one invoice', () => expect(paymentHabit([3])).toBeNull())
  it('is the median', () => expect(paymentHabit([9, 3, 5])).toMatchObject({ medianDays: 5, of: 3 }))
})
describe('worklist', () => {
  const debtor = (customerId: string, more: Partial<Debtor> = {}): Debtor => ({
    customerId,
    overdueMinor: 10000,
    owedMinor: 10000,
    oldestDueOn: '2026-11-04',
    habit: null,
    promise: null,
    promisesKept: 0,
    promisesMade: 0,
    dispute: null,
    lastContactOn: null,
    way: 'mail',
    remindersSent: 0,
    lastReminderOn: null,
    bounced: null,
    ...more,
  })
  const of = (...d: Debtor[]) =>
    worklist(d, '2026-11-24', { money: (m) => `$${m / 100}`, day: (on) => `the ${on}` })
  it('puts a broken promise before the same sum without one, and says so', () => {
    const list = of(
      debtor('plain'),
      debtor('broken', {
        promise: { amountMinor: 5000, on: '2026-11-20', kept: false },
        promisesMade: 3,
        promisesKept: 1,
      }),
    )
    expect(list.map((e) => e.customerId)).toEqual(['broken', 'plain'])
    expect(list[0]!.reason).toBe(
      'Promised $50 for the 2026-11-20; it has not come. Kept 1 of 3 promises',
    )
  })
  it('rests a running promise and a dispute', () =>
    expect(
      of(
        debtor('p', { promise: { amountMinor: 1, on: '2026-11-30', kept: false } }),
        debtor('d', { dispute: 'was not let in' }),
      ).every((e) => e.resting),
    ).toBe(true))
  it('waits for who is not later than usual', () =>
    expect(of(debtor('w', { habit: { medianDays: 30, spreadDays: 3 } }))[0]).toMatchObject({
      act: 'wait',
    }))
  it('climbs from reminder to call', () =>
    expect(
      [0, 1, 2].map(
        (n) =>
          of(debtor('x', { remindersSent: n, lastReminderOn: n ? '2026-11-10' : null }))[0]!.act,
      ),
    ).toEqual(['remind', 'remind', 'call']))
  it('proposes a letter to whom no mail can be sent', () =>
    expect(of(debtor('x', { way: 'letter' }))[0]).toMatchObject({
      act: 'letter',
      reason: '20 days late, no reminder yet; not to be had by mail',
    }))
  it('proposes a call where there is no address at all', () =>
    expect(of(debtor('x', { way: null }))[0]!.act).toBe('call'))
  it('leaves out what is not late', () => expect(of(debtor('x', { overdueMinor: 0 }))).toEqual([]))
})
describe('the account', () => {
  it('sums what to bill line by line: one billed too much never hides one forgotten', () =>
    expect(
      workOrderAccount([
        { id: 'a', promisedMinor: 0, doneMinor: 4860, billedMinor: 0, paidMinor: 0 },
        { id: 'b', promisedMinor: 100, doneMinor: 100, billedMinor: 5000, paidMinor: 0 },
      ]),
    ).toMatchObject({ toBillMinor: 4860, unpaidMinor: 5000, beyondPromiseMinor: 4860 }))
  it.each([
    [5350, [3000, 2000]],
    [10700, [6000, 4000]],
    [0, [0, 0]],
  ])('shares %i paid over the lines', (paidMinor, parts) =>
    expect(paidByLine({ payableMinor: 10700, paidMinor, nets: [6000, 4000] })).toEqual(parts),
  )
})
describe('formats', () => {
  // Source: RFC 4180 §2: quotes are doubled, line breaks and commas live inside quotes.
  it('writes RFC 4180', () =>
    expect(
      writeCsv([
        ['aaa', 'b"bb', 'c\r\nc,'],
        [null, 1, ''],
      ]),
    ).toBe('aaa,"b""bb","c\r\nc,"\r\n,1,\r\n'))
  it.each(['=1+1', '+SUM(A1)', '-cmd', '@x', '＝1+1', '＋1'])(
    'makes %s harmless in a spreadsheet',
    (text) => expect(writeCsv([[text]])).toBe(`'${text}\r\n`),
  )
  it('leaves negative numbers alone', () => expect(writeCsv([['-12.50']])).toBe('-12.50\r\n'))
  it('writes a journal without letting a name break a line', () => {
    expect(writeJournalHead(['Assets:Receivable'], 'USD')).toBe(
      'commodity 1,000.00 USD\naccount Assets:Receivable\n\n',
    )
    expect(
      writeEntry(
        {
          on: '2026-11-24',
          code: 'invoice',
          memo: 'I-1 A;B\nC',
          postings: [{ account: 'Assets:Receivable', amountMinor: 100 }],
        },
        'USD',
      ),
    ).toBe('2026-11-24 * (invoice) I-1 A B C\n    Assets:Receivable  1.00 USD\n\n')
  })
  it('finds names without accents and signs', () =>
    expect([searchKey('Żółw & Sons, 12-A'), digits('(607) 555-0142')]).toEqual([
      'zolw sons 12 a',
      '6075550142',
    ]))
})
describe('what was not agreed', () => {
  it('is asked for of each line at most as far as it is billed now', () => {
    const line = { netMinor: 120, promisedMinor: 100 }
    const lines = [
      { ...line, unbilledMinor: 10 },
      { ...line, unbilledMinor: 120 },
    ]
    expect([beyondAgreedMinor(lines, true), beyondAgreedMinor(lines, false)]).toEqual([30, 0])
  })
  it.each([
    [12_000, 10_000, true, 2_000],
    [10_000, 0, true, 10_000],
    [9_000, 10_000, true, 0],
    [12_000, 10_000, false, 0],
  ])('of %i where %i was promised, and something agreed: %s', (netMinor, promisedMinor, has, is) =>
    expect(notAgreedMinor({ netMinor, promisedMinor }, has)).toBe(is),
  )
})

describe('what hours cost', () => {
  const hour = 3_600_000
  const of = (
    kind: 'drive' | 'on_site' | 'paused' | 'fetch' | 'other',
    hours: number,
    rate: string,
  ) => ({
    ...{ kind, startedAt: 0, endedAt: hours * hour, costRate: rate },
  })
  it.each([
    ['nothing that was clocked', [], 0],
    [
      'an hour there and half an hour on the road',
      [of('on_site', 1, '42'), of('drive', 0.5, '42')],
      6_300,
    ],
    ['no pause', [of('paused', 1, '42')], 0],
    [
      'each person at their rate, rounded once',
      [of('on_site', 1 / 3, '10'), of('on_site', 1 / 3, '10.01')],
      667,
    ],
  ] as [string, ReturnType<typeof of>[], number][])('%s', (_, intervals, cost) =>
    expect(labourCost(intervals, 0, 'USD')).toBe(cost),
  )
  it('what still runs, until now', () =>
    expect(labourCost([{ ...of('on_site', 1, '30'), endedAt: null }], 2 * hour, 'USD')).toBe(6_000))
})
