// Papers as they are read: what stands on a quote and on an invoice, in the words and on the paper of a locale.
import { describe, expect, it } from 'vitest'
import { DETAIL_NAMES, type Details } from '../../core/customers/changedDetails'
import { documentTotals } from '../../core/documents/documentTotals'
import { addressLines, letterheadLines, letterheadOf } from '../../core/documents/letterhead'
import { isNothing, linesInWords, sumsInWords } from '../../core/documents/paperDocument'
import { saysOn } from '../../core/documents/paperWords'
import { paperSize } from '../../core/documents/paperSize'
import { invoiceDocument } from '../../core/invoices/invoiceDocument'
import { invoicePaper, type BilledLine } from '../../core/invoices/invoicePaper'
import { sayUnitPrice } from '../../core/money/sayMoney'
import { quoteDocument, type QuotePaper } from '../../core/quotes/quoteDocument'

const says = saysOn('quote')
const usd = (amount: string) => ({ amount, currency: 'USD' })
const company = {
  name: 'Tarn Water',
  ...{ legalName: '', registration: '', logoId: null },
  ...{ payee: '', bank: '', iban: '', bic: '', chequeName: '' },
  line1: '1 Mill Lane',
  town: 'Otterfall',
  postcode: '04107',
  phone: '207-555-0100',
  email: 'office@example.com',
  taxNumber: '',
  locale: 'en-US',
  taxMode: 'added',
  payTo: 'By cheque to Tarn Water',
  conditions: 'Thank you.',
}
const work = {
  number: 'W-1',
  title: 'A new pump',
  currency: 'USD',
  orderNumber: '',
  printedNote: '',
  contact: { name: '', phone: '207-555-0101' },
  otherContacts: [] as { name: string; phone: string; role: string }[],
}
const none = Object.fromEntries(Object.keys(DETAIL_NAMES).map((name) => [name, ''])) as Details
const details: Details = {
  ...none,
  name: 'Ida Vance',
  billingLine1: '2 Quarry Road',
  billingTown: 'Otterfall',
  siteName: 'Barn',
  siteTown: 'Upper Otterfall',
}
const pump: BilledLine = {
  name: 'Pump',
  quantity: '2.000',
  unit: 'each',
  discountMinor: 500,
  off: [
    { why: 'by Care', minor: 300 },
    { why: 'came late', minor: 200 },
  ],
  unitPrice: '90.00',
  whole: true,
}
const rest: BilledLine = {
  name: 'Pipe',
  quantity: '7.5',
  unit: 'ft',
  discountMinor: 100,
  off: [{ why: 'by Care', minor: 100 }],
  unitPrice: '12.00',
  whole: false,
}
const totals = documentTotals(
  [
    { quantity: '2', unitPrice: '90', discountMinor: 500, taxes: [] },
    {
      quantity: '1',
      unitPrice: '12',
      taxes: [{ code: 'state', name: 'State', rate: '0.055' }],
    },
  ],
  { mode: 'added', currency: 'USD' },
)
const facts = {
  number: 'I-1',
  issueOn: '2026-11-24',
  dueOn: '2026-12-24',
  terms: { kind: 'days', days: 30 } as const,
  company,
  work,
  details,
  found: [],
  certificate: '',
  lines: [pump, rest],
  totals,
}

describe('the paper of an invoice', () => {
  it('bills whole lines as they are, and of a balance the balance alone', () => {
    expect(invoicePaper(facts).lines).toEqual([
      {
        name: 'Pump',
        quantity: '2',
        unit: 'each',
        unitPrice: '90.00',
        discount: usd('5.00'),
        off: [
          { why: 'by Care', amount: usd('3.00') },
          { why: 'came late', amount: usd('2.00') },
        ],
        net: usd('175.00'),
      },
      {
        name: 'Pipe (balance)',
        quantity: '1',
        unit: 'ft',
        unitPrice: '12.00',
        discount: usd('0.00'),
        off: [],
        net: usd('12.00'),
      },
    ])
  })
  it('takes its sums from the totals', () => {
    const paper = invoicePaper(facts)
    expect([paper.net, paper.tax, paper.total, paper.payable]).toEqual(
      ['187.00', '0.66', '187.66', '187.66'].map(usd),
    )
    expect(paper.taxes).toEqual([
      { name: 'State', rate: '0.055', base: usd('12.00'), tax: usd('0.66') },
    ])
  })
  it('is written to the details that it is given, without what is empty', () => {
    const paper = invoicePaper(facts)
    expect(paper.buyer).toEqual({ name: 'Ida Vance', address: ['2 Quarry Road', 'Otterfall'] })
    expect(paper.site).toBe('Barn, Upper Otterfall')
    expect(paper.seller.address).toEqual(['1 Mill Lane', 'Otterfall 04107'])
  })
  it.each([
    [{ name: '', phone: '1' }, ''],
    [{ name: 'Ray', phone: '' }, 'Ray'],
    [{ name: 'Ray', phone: '1' }, 'Ray, 1'],
  ])('names a contact of %j as “%s”', (contact, said) =>
    expect(invoicePaper({ ...facts, work: { ...work, contact } }).contact).toBe(said),
  )
  it('names whoever else is to be spoken to, and as what', () => {
    const contact = { name: 'Ray', phone: '1', role: 'tenant' }
    const otherContacts = [{ name: 'Ada', phone: '', role: 'caretaker' }]
    expect(invoicePaper({ ...facts, work: { ...work, contact, otherContacts } }).contact).toBe(
      'Ray (tenant), 1; Ada (caretaker)',
    )
  })
})

describe('an invoice as it is read', () => {
  const paper = invoicePaper(facts)
  const open = { paid: usd('0.00'), open: usd('187.66') }
  it('says when it is due, and of which work it is', () => {
    expect(invoiceDocument(paper, open).facts).toEqual([
      { text: 'Issued November 24, 2026' },
      { text: 'Due December 24, 2026 (30 days)', strong: true },
      { text: 'Our work order W-1' },
    ])
    const ordered = invoiceDocument({ ...paper, orderNumber: 'PO 7' }, open)
    expect(ordered.facts.map((fact) => fact.text)).toContain('Your order PO 7')
  })
  it('sums up to the total; what came in, and what is still open, only where something came in', () => {
    const labels = (of: typeof open) => invoiceDocument(paper, of).sums.map((sum) => sum.label)
    expect(labels(open)).toEqual(['Net', 'State 5.5%', 'Total'])
    expect(labels({ paid: usd('100.00'), open: usd('87.66') })).toEqual([
      'Net',
      'State 5.5%',
      'Total',
      'Paid',
      'Still open',
    ])
  })
  it('says what is payable where the customer keeps tax back', () => {
    const withheld = { ...paper, payable: usd('180.00') }
    expect(invoiceDocument(withheld, open).sums.at(-1)).toEqual({
      label: 'Payable',
      amount: '$180.00',
      strong: true,
    })
  })
  it('is read also where it was made before papers had notes', () => {
    const { note: _note, contact: _contact, found: _found, ...older } = paper
    expect(invoiceDocument(older, open).notes).toEqual(['By cheque to Tarn Water'])
  })
  it('says what was found on site, where it is to be printed', () =>
    expect(invoiceDocument({ ...paper, found: ['A worn seal.'] }, open).notes[0]).toBe(
      'Found on site: A worn seal.',
    ))
  it('names the certificate that frees from tax', () =>
    expect(invoiceDocument({ ...paper, exemptCertificate: 'E-9' }, open).remark).toBe(
      'Tax exempt, certificate E-9',
    ))
})

describe('a quote as it is read', () => {
  const paper: QuotePaper = {
    number: 'Q-1',
    locale: 'de-DE',
    currency: 'EUR',
    seller: { name: 'Tarn', address: [], phone: '', email: '', taxNumber: 'DE1' },
    lines: [],
    issuedOn: '2026-11-24',
    expiresOn: '2026-12-24',
    title: 'A new pump',
    scope: 'Take the old one out.',
    orderNumber: '',
    buyer: { name: 'Ida Vance', address: [] },
    site: 'Barn',
    contact: '',
    net: { amount: '1759.80', currency: 'EUR' },
    taxes: [],
    total: { amount: '1759.80', currency: 'EUR' },
    saving: null,
    exempt: '',
  }
  it('speaks in the words of its locale', () => {
    const read = quoteDocument(paper)
    expect(read.facts[1]).toEqual({ text: 'Price held until 24. Dezember 2026', strong: true })
    expect(read.sums.at(-1)!.amount.replace(/\s/g, ' ')).toBe('1.759,80 €')
    expect(read.place).toEqual({ as: 'A new pump', text: 'Barn\nTake the old one out.' })
  })
  it('says what a care agreement would save, if it saves anything', () => {
    const saving = (amount: string) => ({ level: 'Care', amount: { amount, currency: 'EUR' } })
    expect(quoteDocument({ ...paper, saving: saving('0.00') }).notes).toEqual([])
    expect(quoteDocument({ ...paper, saving: saving('20.00') }).notes).toHaveLength(1)
  })
})

describe('what papers are made of', () => {
  const line = {
    name: 'Pipe',
    quantity: '7.5',
    unit: 'ft',
    unitPrice: '0.035',
    discount: usd('0.00'),
    net: usd('0.26'),
  }
  it('says units, but not of what is counted, and what was taken off', () => {
    expect(linesInWords({ lines: [line], locale: 'en-US' }, says)).toEqual([
      { name: 'Pipe', beneath: '', quantity: '7.5 ft', each: '0.035', amount: '$0.26' },
    ])
    const counted = { ...line, unit: 'each', discount: usd('5.00') }
    expect(linesInWords({ lines: [counted], locale: 'en-US' }, says)[0]).toMatchObject({
      quantity: '7.5',
      // A paper from before reasons were kept names none.
      beneath: 'less $5.00',
    })
    const off = [
      { why: 'by Care', amount: usd('3.00') },
      { why: 'came late', amount: usd('2.00') },
    ]
    expect(linesInWords({ lines: [{ ...counted, off }], locale: 'en-US' }, says)[0]!.beneath).toBe(
      'less $3.00 by Care, less $2.00 came late',
    )
  })
  it('writes rates of tax as per cent, without what says nothing', () => {
    const taxes = [{ name: 'State', rate: '0.0500', tax: usd('1.00') }]
    expect(
      sumsInWords({ net: usd('20.00'), taxes, total: usd('21.00') }, 'en-US', says)[1],
    ).toEqual({
      label: 'State 5%',
      amount: '$1.00',
    })
  })
  it.each([
    ['1759.8', 'USD', 'en-US', '1,759.80'],
    ['1759', 'JPY', 'en-US', '1,759'],
    ['12.5', 'KWD', 'en-US', '12.500'],
    ['1759.8', 'EUR', 'de-DE', '1.759,80'],
  ])('a price of %s %s in %s is %s', (price, currency, locale, said) =>
    expect(sayUnitPrice(price, currency, locale)).toBe(said),
  )
  it('leaves out what is empty in an address', () => {
    expect(addressLines({ line1: '', town: 'Otterfall', postcode: '' })).toEqual(['Otterfall'])
    expect(addressLines({ line1: '', town: '', postcode: '' })).toEqual([])
  })
  it('nothing is nothing in every currency', () =>
    expect(['0', '0.00', '-0.000', '0.01'].map((amount) => isNothing(usd(amount)))).toEqual([
      true,
      true,
      true,
      false,
    ]))
  // Unicode CLDR, supplemental data: the countries of Letter; from memory.
  it.each([
    ['en-US', 'LETTER'],
    ['fr-CA', 'LETTER'],
    ['es-MX', 'LETTER'],
    ['en', 'LETTER'],
    ['en-GB', 'A4'],
    ['de', 'A4'],
    ['ja-JP', 'A4'],
  ])('paper for %s is %s', (locale, size) => expect(paperSize(locale)).toBe(size))
})

describe('a letterhead', () => {
  const firm = {
    ...company,
    legalName: 'Tarn Water Ltd',
    registration: 'Registered in Larkmoor, 4711',
  }
  it('says beneath the name what the firm has, and nothing else', () => {
    expect(letterheadLines(letterheadOf(firm))).toEqual([
      ...['Tarn Water Ltd', '1 Mill Lane', 'Otterfall 04107'],
      ...['207-555-0100 · office@example.com', 'Registered in Larkmoor, 4711'],
    ])
    expect(letterheadLines(letterheadOf({ ...firm, legalName: firm.name, phone: '' }))).toEqual([
      ...['1 Mill Lane', 'Otterfall 04107', 'office@example.com', 'Registered in Larkmoor, 4711'],
    ])
  })
  it('of a paper from before legal names were kept is what it was', () => {
    const old = { name: 'Tarn', address: ['1 Mill Lane'], phone: '', email: '', taxNumber: 'DE1' }
    expect(letterheadLines(old)).toEqual(['1 Mill Lane', 'Tax number DE1'])
  })
})
