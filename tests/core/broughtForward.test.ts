// What is taken over from the books before: sums and days as other programs write them, whom a row is about, numbers that go on.
import { describe, expect, it } from 'vitest'
import { broughtPaper } from '../../core/broughtForward/broughtPaper'
import {
  guessOpenItems,
  payerOf,
  readOpenItem,
  repeatedNumbers,
  type OpenItemField,
} from '../../core/broughtForward/openItem'
import {
  LONGEST_NUMBER,
  numberIn,
  serialIn,
  seriesProblem,
  willCome,
} from '../../core/documents/numberSeries'
import { invoiceDocument } from '../../core/invoices/invoiceDocument'
import { broughtInvoiceEntry, openingEntry } from '../../core/ledger/entries'
import { toMoney } from '../../core/money/formatMinor'
import { readSum } from '../../core/money/readSum'

describe('readSum', () => {
  // Where figures tell which sign divides the decimals, the locale does not matter.
  it.each([
    ['1,234.56', '1234.56'],
    ['1.234,56', '1234.56'],
    ['1 234,56 €', '1234.56'],
    ["1'234.50", '1234.5'],
    ['12,5', '12.5'],
    ['1.234.567', '1234567'],
    ['$1,200', '1200', 'en-US'],
    ['USD 40.00', '40'],
    ['40.00 KD', '40'],
    ['R$ 12,30', '12.3'],
    ['(40.00)', '-40'],
    ['-$5.10', '-5.1'],
    ['$-5.10', '-5.1'],
    ['5.10-', '-5.1'],
    ['−7', '-7'],
    ['0', '0'],
    ['$.50', '0.5'],
    ['.', null],
    ['', null],
    ['twelve', null],
    ['1,23,456.00', null],
    ['1.2.3', null],
    ['--5', null],
    ['(-5)', null],
    ['(5', null],
    ['12.34567', null],
  ])('%s is %s', (text, sum, locale = 'de-DE') => {
    expect(readSum(text, locale)).toBe(sum)
  })
  it.each([
    ['1,234', 'en-US', '1234'],
    ['1,234', 'de-DE', '1.234'],
    ['1.234', 'de-DE', '1234'],
    // Kuwait: three decimals are what its money has.
    ['1.234', 'en-GB', '1.234'],
    ['1234.567', 'de-DE', '1234.567'],
  ])('%s, of which nobody can tell, is in %s %s', (text, locale, sum) => {
    expect(readSum(text, locale)).toBe(sum)
  })
  // Source: what Intl.NumberFormat writes, of the Unicode CLDR.
  it('reads back what each locale writes', () => {
    for (const locale of ['en-US', 'en-GB', 'de-DE', 'de-CH', 'fr-FR', 'sv-SE', 'pt-BR', 'ja-JP'])
      for (const sum of [0.5, 12, 1234.56, -98765.4, 1234567])
        expect([
          locale,
          readSum(new Intl.NumberFormat(locale, { maximumFractionDigits: 2 }).format(sum), locale),
        ]).toEqual([locale, String(sum)])
  })
})

const FIRM = { today: '2026-11-24', locale: 'en-US', currency: 'USD' }
const COLUMNS: OpenItemField[] = ['number', 'customer', 'issued', 'due', 'total', 'open']
const read = (row: string[], firm = FIRM) => readOpenItem(row, COLUMNS, firm)
describe('readOpenItem', () => {
  it('reads days and sums as the firm writes them', () => {
    const { item } = read(['1041', 'Marrow', '11/02/2026', '12/02/2026', '$1,200.50', '200.50'])
    expect(item).toEqual({
      ...{ number: '1041', customer: 'Marrow', phone: '', email: '' },
      ...{ issuedOn: '2026-11-02', dueOn: '2026-12-02', totalMinor: 120_050, openMinor: 20_050 },
    })
    const german = { today: '2026-11-24', locale: 'de-DE', currency: 'EUR' }
    expect(read(['7', 'Zoll', '02.11.2026', '', '', '1.200,50'], german).item).toMatchObject({
      ...{ issuedOn: '2026-11-02', dueOn: '2026-11-02', totalMinor: 120_050, openMinor: 120_050 },
    })
  })
  it('knows currencies without decimals, and with three', () => {
    const of = (currency: string, open: string) =>
      read(['1', 'A', '2026-11-01', '', '', open], { ...FIRM, currency })
    expect(of('JPY', '12000').item?.openMinor).toBe(12_000)
    expect(of('KWD', '12.345').item?.openMinor).toBe(12_345)
    expect(of('JPY', '12.50').problems).toMatchObject([{ field: 'open' }])
  })
  it('takes a credit as what is open below nothing', () => {
    expect(read(['C-7', 'Marrow', '2026-10-01', '', '', '(40.00)']).item?.openMinor).toBe(-4000)
  })
  it.each([
    [['', 'Marrow', '2026-11-02', '', '', '5'], 'number'],
    [['9'.repeat(LONGEST_NUMBER + 1), 'Marrow', '2026-11-02', '', '', '5'], 'number'],
    [['1', '', '2026-11-02', '', '', '5'], 'customer'],
    [['1', 'Marrow', '', '', '', '5'], 'issued'],
    [['1', 'Marrow', '11/02', '', '', '5'], 'issued'],
    [['1', 'Marrow', '2026-13-02', '', '', '5'], 'issued'],
    [['1', 'Marrow', '2026-11-25', '', '', '5'], 'issued'],
    [['1', 'Marrow', '2026-11-02', '2026-11-01', '', '5'], 'due'],
    [['1', 'Marrow', '2026-11-02', 'soon', '', '5'], 'due'],
    [['1', 'Marrow', '2026-11-02', '', '4', '5'], 'open'],
    [['1', 'Marrow', '2026-11-02', '', 'all', '5'], 'total'],
    [['1', 'Marrow', '2026-11-02', '', '', ''], 'open'],
  ])('says at which field %j is wrong: %s', (row, field) => {
    const { item, problems } = read(row)
    expect(item).toBeNull()
    expect(problems.map((p) => p.field)).toEqual([field])
  })
  it('says all that is wrong in a row', () => {
    expect(read(['', '', '', '', '', '']).problems.map(({ field }) => field)).toEqual([
      'number',
      'customer',
      'issued',
      'open',
    ])
  })
})
describe('a list of open items', () => {
  it('has columns under the names that programs give them', () => {
    expect(
      guessOpenItems([
        'Invoice No.',
        'Customer Name',
        'Invoice Date',
        'Due Date',
        'Balance Due',
        'Rep',
      ]),
    ).toEqual(['number', 'customer', 'issued', 'due', 'open', null])
  })
  it('has each number once', () => {
    const rows = [['A-1'], [''], ['a-1'], [''], ['A-2'], ['A-1']]
    expect(repeatedNumbers(rows, ['number'])).toEqual([2, 5])
    expect(repeatedNumbers(rows, ['open'])).toEqual([])
  })
})
describe('payerOf', () => {
  const some = (id: string, name: string, phones: string[] = [], mails: string[] = []) => ({
    ...{ id, name, phones, mails },
  })
  const asks = (customer: string, phone = '', email = '') => ({ customer, phone, email })
  it('is who has the name, however it is written', () => {
    const marrow = some('1', 'Márrow & Sons')
    expect(payerOf(asks('MARROW  & sons'), [marrow])).toEqual({ payer: marrow, several: false })
  })
  it('is told apart by telephone or mail where several have the name', () => {
    const [one, two] = [some('1', 'Marrow', ['555']), some('2', 'Marrow', [], ['m@x.test'])]
    expect(payerOf(asks('Marrow'), [one, two])).toEqual({ payer: null, several: true })
    expect(payerOf(asks('Marrow', '555'), [one, two]).payer).toBe(one)
    expect(payerOf(asks('Marrow', '', 'M@x.test'), [one, two]).payer).toBe(two)
  })
  it('is who has the telephone where nobody has the name', () => {
    const one = some('1', 'J. Marrow', ['555'])
    expect(payerOf(asks('Joan Marrow', '555'), [one]).payer).toBe(one)
    expect(payerOf(asks('Joan Marrow', '556'), [one])).toEqual({ payer: null, several: false })
    const twice = [one, some('2', 'Kim', ['555'])]
    expect(payerOf(asks('Joan Marrow', '555'), twice)).toEqual({ payer: null, several: true })
  })
})

describe('a series of numbers', () => {
  const plain = { prefix: 'I-', width: 1, yearly: false }
  const yearly = { prefix: '{year}/', width: 4, yearly: true }
  it('says its numbers, and reads them back', () => {
    expect(numberIn(plain, 2041, 2026)).toBe('I-2041')
    expect(numberIn(yearly, 7, 2026)).toBe('2026/0007')
    for (const [series, serial] of [
      [plain, 1],
      [yearly, 12_345],
    ] as const)
      expect(serialIn(series, numberIn(series, serial, 2026), 2026)).toBe(serial)
  })
  it('has no number that it would not say so', () => {
    for (const number of ['I-', 'I-0', 'I-007', 'i-7', 'J-7', 'I-7a', ''])
      expect(serialIn(plain, number, 2026)).toBeNull()
    expect(serialIn(yearly, '2025/0007', 2026)).toBeNull()
  })
  it('comes to what lies before it, this year and in those that follow', () => {
    const at = { next: 100, year: 2026 }
    expect(['I-99', 'I-100', 'I-5000', '100'].map((n) => willCome(plain, at, n))).toEqual([
      ...[false, true, true, false],
    ])
    expect(
      ['2025/0200', '2026/0099', '2026/0100', '2027/0001'].map((n) => willCome(yearly, at, n)),
    ).toEqual([false, false, true, true])
  })
  it('is refused where it would say a number twice, or one too long', () => {
    expect(seriesProblem(plain)).toBeNull()
    expect(seriesProblem(yearly)).toBeNull()
    expect(seriesProblem({ ...plain, yearly: true })).toMatchObject({ field: 'yearly' })
    expect(seriesProblem({ ...plain, prefix: 'I '.repeat(2) })).toMatchObject({ field: 'prefix' })
    expect(seriesProblem({ ...plain, prefix: '{year}{year}' })).toMatchObject({ field: 'prefix' })
    expect(seriesProblem({ ...plain, prefix: 'x'.repeat(16) })).toMatchObject({ field: 'prefix' })
  })
})

describe('the books', () => {
  it('have what is open against the opening balances', () => {
    expect(broughtInvoiceEntry(5000)).toEqual([
      { account: 'receivable', amountMinor: 5000 },
      { account: 'opening', amountMinor: -5000 },
    ])
  })
  it('balance, whatever stood in the accounts', () => {
    expect(
      openingEntry([
        { account: 'bank', amountMinor: 90_000 },
        { account: 'tax', amountMinor: -20_000 },
        { account: 'cash', amountMinor: 0 },
      ]),
    ).toEqual([
      { account: 'bank', amountMinor: 90_000 },
      { account: 'tax', amountMinor: -20_000 },
      { account: 'opening', amountMinor: -70_000 },
    ])
    expect(openingEntry([])).toEqual([])
  })
})
describe('the paper of an invoice from before', () => {
  const paperOf = (openMinor: number) =>
    broughtPaper({
      item: {
        ...{ number: '1041', issuedOn: '2026-11-02', dueOn: '2026-12-02' },
        ...{ totalMinor: 9000, openMinor },
      },
      buyer: { name: 'Marrow', line1: '1 Mill Lane', town: 'Otterfall', postcode: '04107' },
      seller: { name: 'Reed', address: [], phone: '', email: '', taxNumber: '' },
      firm: {
        ...{ currency: 'USD', locale: 'en-US', taxMode: 'added', payTo: '', conditions: '' },
        ...{ name: 'Reed', payee: '', bank: '', iban: '', bic: '', chequeName: '' },
      },
    })
  const sumsOf = (openMinor: number) => {
    const received = { paid: toMoney(0, 'USD'), open: toMoney(openMinor, 'USD') }
    return invoiceDocument(paperOf(openMinor), received).sums.map((s) => `${s.label} ${s.amount}`)
  }
  it('says the whole, what was paid before, what is to be paid', () => {
    expect(sumsOf(5000)).toEqual(['Total $90.00', 'Paid before $40.00', 'Payable $50.00'])
    expect(sumsOf(9000)).toEqual(['Total $90.00'])
  })
  it('names neither work nor a place that it does not know', () => {
    const received = { paid: toMoney(0, 'USD'), open: toMoney(5000, 'USD') }
    const { facts, place } = invoiceDocument(paperOf(5000), received)
    expect(facts.map(({ text }) => text).join()).not.toContain('work order')
    expect(place).toEqual({ as: '', text: '' })
  })
})
