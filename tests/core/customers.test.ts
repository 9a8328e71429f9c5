// Who is calling: matching, likeness, telephone numbers, territories, imports, cards.
import { fc, test } from '@fast-check/vitest'
import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { agreementState } from '../../core/agreements/agreementState'
import { nextVisitDue } from '../../core/agreements/nextVisitDue'
import { paidNet } from '../../core/costing/paidNet'
import { firstGap } from '../../core/dispatch/firstGap'
import { transferEntry } from '../../core/ledger/entries'
import { workOrderState } from '../../core/visits/workOrderState'
import { sayEquipment } from '../../core/customers/sayEquipment'
import { changedDetails, DETAIL_NAMES, type Details } from '../../core/customers/changedDetails'
import {
  cardsAsTable,
  guessColumns,
  IMPORT_FIELDS,
  recordOf,
  recordProblems,
} from '../../core/customers/importRows'
import {
  duplicatePairs,
  likeness,
  nameLikeness,
  PERHAPS_THE_SAME,
  type Comparable,
} from '../../core/customers/likeness'
import { matchIndex, type MatchDoc } from '../../core/customers/matchIndex'
import { territoryOf } from '../../core/customers/territoryOf'
import { writeCsv } from '../../core/formats/csv'
import { readCsv } from '../../core/formats/readCsv'
import { readVcf, writeVcf, type Card } from '../../core/formats/vcf'
import { formatPhone, phoneKey } from '../../core/text/phone'
import { spokenDigits } from '../../core/text/spokenDigits'

describe('a piece of equipment', () => {
  it.each([
    [{ make: 'Kelda', category: 'UV unit', serial: 'OS-31746' }, 'Kelda UV unit OS-31746'],
    [{ make: '', category: 'pump', serial: '' }, 'pump'],
    [{ make: 'Varn', category: '', serial: '7' }, 'Varn 7'],
  ])('is called by what is known of it: %j', (thing, name) =>
    expect(sayEquipment(thing)).toBe(name),
  )
})

describe('telephone numbers', () => {
  // The rules of each country are libphonenumber's; the numbers are reserved for fiction (NANP 555-01XX; Ofcom's drama numbers; both mem).
  it.each([
    ['6075550142', '(607) 555-0142'],
    ['607.555.0142', '(607) 555-0142'],
    ['+1 607-555-0142', '(607) 555-0142'],
    ['1 (607) 5550142', '(607) 555-0142'],
    ['+442079460958', '+44 20 7946 0958'],
    ['607-555-0142 ext 5', '(607) 555-0142 ext. 5'],
    ['555-0142', '555-0142'],
    ['  ask the neighbour ', 'ask the neighbour'],
    ['', ''],
  ])('writes %j as %j', (typed, written) => {
    expect(formatPhone(typed, 'US')).toBe(written)
    expect(formatPhone(written, 'US')).toBe(written)
  })
  it('is in the form of the firm’s own country', () => {
    expect(formatPhone('02079460958', 'GB')).toBe('020 7946 0958')
    expect(formatPhone('+1 607 555 0142', 'GB')).toBe('+1 607 555 0142')
  })
  it.each([
    ['(607) 555-0142', '6075550142'],
    ['+1 607 555 0142', '6075550142'],
    ['+44 20 7946 0958', '442079460958'],
    ['555-0142', '5550142'],
  ])('knows %j by %j', (typed, key) => expect(phoneKey(typed, 'US')).toBe(key))
})

describe('a card', () =>
  it('takes no line that somebody writes into a name or an address', () => {
    const text = writeVcf([
      {
        name: 'Ada\rEND:VCARD\rBEGIN:VCARD',
        phones: [],
        mails: [],
        addresses: [{ line1: '1 Evil St\rEND:VCARD', town: '', postcode: '' }],
      },
    ])
    expect(text.match(/^(BEGIN|END):VCARD\r?$/gm)).toHaveLength(2)
    expect(readVcf(text)).toHaveLength(1)
  }))
describe('spoken numbers', () => {
  it.each([
    ['five double five oh one four two', '5550142'],
    ['six oh seven triple five zero one four two', '6075550142'],
    ['607 555 0142', '6075550142'],
    ['treble 5 0142', '5550142'],
    ['12 beck road', '12 beck road'],
    ['one well road', 'one well road'],
    ['hallam oh one four two', 'hallam 0142'],
    ['double glazing', 'double glazing'],
    ['4 04107', '4 04107'],
  ])('%j is %j', (said, meant) => expect(spokenDigits(said.split(' ')).join(' ')).toBe(meant))
})

const nobody = { contacts: [], places: [], mails: [], phones: [], serials: [], other: [] }
const doc = (id: string, name: string, more: Partial<MatchDoc> = {}): MatchDoc => ({
  ...nobody,
  id,
  name,
  ...more,
})
describe('who it could be', () => {
  const index = matchIndex([
    doc('dairy', 'Hallam Dairy', {
      phones: ['6075550142'],
      places: ['Upper parlour, 12 Beck Road, Stonebeck 04107'],
      contacts: ['Edda Hallam'],
    }),
    doc('oduya', 'T. O’Duya', {
      phones: ['6075550119', '6075550177'],
      mails: ['tunde@example.com'],
      serials: ['VX-12345'],
    }),
    doc('hall', 'Ruth Hall', { places: ['3 Ferry Lane, Fenny Marsh 04115'] }),
    doc('school', 'Tarn View School', { places: ['Tarn View 9, High Tarn'], other: ['exempt'] }),
  ])
  it.each([
    ['hallam', 'dairy'],
    ['halam dairy', 'dairy'],
    ['Hlalam', 'dairy'],
    ['dairy beck', 'dairy'],
    ['edda', 'dairy'],
    ['12 beck', 'dairy'],
    ['five double five oh one four two', 'dairy'],
    ['0142', 'dairy'],
    ['+1 607 555 0142', 'dairy'],
    ['607555014', 'dairy'],
    ['oduya', 'oduya'],
    ["o'duya", 'oduya'],
    ['555 0177', 'oduya'],
    ['vx 12345', 'oduya'],
    ['VX12345', 'oduya'],
    ['tunde@example.com', 'oduya'],
    ['ruth', 'hall'],
    ['fery lane', 'hall'],
    ['tarn view', 'school'],
    ['scool tarn', 'school'],
    ['hallam the milk farm', 'dairy'],
  ])('%j is %s', (typed, meant) => expect(index.find(typed)[0]?.id).toBe(meant))
  it('says by what each was found', () => {
    expect(index.find('5550142')[0]!.why).toEqual([{ word: '5550142', field: 'phones' }])
    expect(index.find('12 beck')[0]!.why.map((w) => w.field)).toEqual(['places', 'places'])
  })
  it('finds nothing for nothing, signs, or a stranger', () => {
    for (const typed of ['', '   ', '---', 'zzzzzzzz qqqqqq']) expect(index.find(typed)).toEqual([])
  })
  it('finds everybody of a number that two share, and the exact one before the one that is nearly so', () => {
    const shared = matchIndex([
      doc('a', 'E. Marrow', { phones: ['6075550161'] }),
      doc('b', 'Marrow & Son', { phones: ['6075550161'] }),
      doc('c', 'Marlow', { phones: ['6075550162'] }),
    ])
    expect(
      shared
        .find('5550161')
        .map((f) => f.id)
        .sort(),
    ).toEqual(['a', 'b'])
    expect(shared.find('marrow').map((f) => f.id)).not.toContain('c')
  })
  it('follows changes: a new name is found, the old one is not, what is taken out is gone', () => {
    const changing = matchIndex([doc('a', 'Ada Birchall')])
    changing.put([doc('a', 'Ada Quarry'), doc('b', 'Bram Rusk')])
    expect([
      changing.find('birchall'),
      changing.find('quarry')[0]?.id,
      changing.find('rusk')[0]?.id,
      changing.size,
    ]).toEqual([[], 'a', 'b', 2])
    changing.take('a')
    changing.take('never')
    expect(changing.find('quarry')).toEqual([])
  })
  it('among thousands, a town that many share does not hide the one who is meant, nor invent one', () => {
    const many = matchIndex(
      Array.from({ length: 3000 }, (_, i) =>
        doc(`c${i}`, `Person ${i} Name${i % 500}`, {
          places: [`${i} Some Road, ${i % 3 ? 'Larkmoor' : 'Otterfall'}`],
        }),
      ),
    )
    expect(many.find('name77 otterfall road').map((f) => f.id)).toEqual(
      Array.from({ length: 6 }, (_, k) => 77 + k * 500)
        .filter((i) => i % 3 === 0)
        .map((i) => `c${i}`),
    )
    expect(many.find('name77 otterfall')[0]!.why.map((w) => w.field)).toEqual(['name', 'places'])
    expect(many.find('nmae77 larkmoor')[0]!.id).toMatch(/^c\d*77$/)
    expect(many.find('larkmoor road').length).toBe(8)
  })
  test.prop([fc.string({ maxLength: 60 })])(
    'never fails, whatever is typed',
    (typed) => void index.find(typed),
  )
})

describe('are they the same', () => {
  const one = (id: string, name: string, more: Partial<Comparable> = {}): Comparable => ({
    id,
    name,
    phones: [],
    mails: [],
    places: [],
    ...more,
  })
  it('believes a number with an initial, and not a street', () => {
    const a = one('a', 'T. Oduya', { phones: ['6075550119'] })
    const b = one('b', 'Tunde Oduya', { phones: ['6075550119'] })
    expect(likeness(a, b)).toEqual({
      score: 0.6,
      reasons: ['same telephone number', 'same surname'],
    })
    expect(
      likeness(
        one('a', 'Ada Rusk', { places: ['4 Ford End'] }),
        one('b', 'Bram Vail', { places: ['4 Ford End'] }),
      ).score,
    ).toBeLessThan(PERHAPS_THE_SAME)
  })
  it('counts one reason more as surer', () => {
    const a = one('a', 'Ada Rusk', {
      phones: ['1'],
      mails: ['a@example.com'],
      places: ['1 Ford End'],
    })
    const scores = [
      one('b', 'Ada Rusk'),
      one('b', 'Ada Rusk', { phones: ['1'] }),
      one('b', 'Ada Rusk', { phones: ['1'], mails: ['A@Example.com'] }),
    ].map((b) => likeness(a, b).score)
    expect(scores).toEqual([0.6, 0.8, 0.92])
  })
  it('knows the same words in another order, and a slip', () => {
    expect([
      nameLikeness('Dairy Hallam', 'Hallam Dairy'),
      nameLikeness('', ''),
      nameLikeness('Hallam', 'Halam') > 0.8,
    ]).toEqual([1, 0, true])
  })
  it('pairs what shares something; a switchboard that many share is no evidence', () => {
    const flats = Array.from({ length: 30 }, (_, i) =>
      one(`f${i}`, `Tenant number ${i} of ${i * 7}`, { phones: ['6075550100'] }),
    )
    const pairs = duplicatePairs([
      ...flats,
      one('x', 'Ada Rusk', { mails: ['ada@example.com'] }),
      one('y', 'A. Rusk', { mails: ['ADA@example.com'] }),
    ])
    expect(pairs).toEqual([
      {
        first: 'x',
        second: 'y',
        score: 0.76,
        reasons: ['same mail address', 'nearly the same name'],
      },
    ])
  })
  const letters = fc.stringMatching(/^[a-z]{1,8} [a-z]{1,8}$/)
  test.prop([letters, letters, fc.boolean()])(
    'is the same from both sides, and between 0 and 1',
    (x, y, phone) => {
      const [a, b] = [one('a', x, { phones: ['1'] }), one('b', y, { phones: [phone ? '1' : '2'] })]
      expect(likeness(a, b)).toEqual(likeness(b, a))
      expect(likeness(a, b).score).toBeGreaterThanOrEqual(0)
      expect(likeness(a, b).score).toBeLessThanOrEqual(1)
    },
  )
})

describe('territory of a postcode', () => {
  const territories = [
    { id: 'all', postcodes: ['041'] },
    { id: 'tarns', postcodes: ['04107', '04118'] },
    { id: 'city', postcodes: ['SW1A 1'] },
  ]
  it.each([
    ['04107', 'tarns'],
    ['04101', 'all'],
    ['sw1a1aa', 'city'],
    ['99999', null],
    ['', null],
  ])('%j is in %s', (postcode, id) =>
    expect(territoryOf(postcode, territories)?.id ?? null).toBe(id),
  )
})

describe('details that were copied', () => {
  it('names what changed since, and is silent about what was never copied', () => {
    const now = Object.fromEntries(
      Object.keys(DETAIL_NAMES).map((detail) => [detail, '']),
    ) as Details
    expect(
      changedDetails(
        { phone: '1', siteTown: 'Otterfall' },
        { ...now, phone: '2', siteTown: 'Otterfall', email: 'new@example.com' },
      ),
    ).toEqual([{ detail: 'phone', was: '1', is: '2' }])
    expect(changedDetails({}, { ...now, phone: '2' })).toEqual([])
  })
})

describe('comma-separated values', () => {
  it('reads the example of RFC 4180 §2', () =>
    expect(readCsv('aaa,bbb,ccc\r\n"aaa","b""bb","c\r\nc,c"\r\n').rows).toEqual([
      ['aaa', 'b"bb', 'c\r\nc,c'],
    ]))
  it('reads semicolons, tabs, a byte order mark; fills short rows, leaves out blank ones', () => {
    expect(readCsv('\uFEFFname;town\nMarrow;Otterfall\n\n;\nRusk')).toEqual({
      head: ['name', 'town'],
      rows: [
        ['Marrow', 'Otterfall'],
        ['Rusk', ''],
      ],
    })
    expect(readCsv('name\ttown\nMarrow\tOtterfall').rows).toEqual([['Marrow', 'Otterfall']])
  })
  it('refuses what is no text, and nothing', () => {
    for (const text of ['PK\u0003\u0004\u0000\u0000', '', '\n\n', ',,'])
      expect(() => readCsv(text)).toThrow(RangeError)
  })
  test.prop([
    fc.array(
      fc.array(
        fc
          .string({ minLength: 1 })
          .filter(
            (s) =>
              s.trim() === s &&
              !/^[=+\-@\t\r]/.test(s) &&
              !s.includes('\u0000') &&
              !s.includes('\uFFFD'),
          ),
        { minLength: 2, maxLength: 2 },
      ),
      { minLength: 1, maxLength: 5 },
    ),
  ])('reads what we write', (rows) => {
    expect(readCsv(writeCsv([['a', 'b'], ...rows])).rows).toEqual(rows)
  })
})

describe('import', () => {
  it('guesses columns by their headings, each meaning once', () => {
    expect(
      guessColumns(['Customer', 'City', 'Shoe size', 'E-mail', 'Name', 'site_postcode']),
    ).toEqual(['name', 'billing_town', null, 'email', null, 'site_postcode'])
    expect(guessColumns([...IMPORT_FIELDS])).toEqual([...IMPORT_FIELDS])
  })
  it('says what is wrong, and lets a number be words', () => {
    expect(
      recordProblems({ name: 'Rusk', email: 'rusk@example.com', phone: 'ask the neighbour' }),
    ).toEqual([])
    expect(recordProblems({ email: 'rusk at example' })).toEqual([
      { field: 'name', message: 'There is no name.' },
      { field: 'email', message: '“rusk at example” is not a mail address.' },
    ])
    expect(recordProblems({ name: 'x'.repeat(161) })).toEqual([
      { field: 'name', message: 'Longer than 160 signs.' },
    ])
  })
  it('makes a record of the columns that mean something', () =>
    expect(recordOf(['Rusk', 'x', ''], ['name', null, 'phone'])).toEqual({ name: 'Rusk' }))
})

describe('cards (RFC 6350)', () => {
  const cards: Card[] = [
    {
      uid: '019ab000-0000-7000-8000-000000000001',
      name: 'Ada Birchall',
      phones: ['(607) 555-0119', '+44 20 7946 0958'],
      mails: ['ada@example.com'],
      addresses: [{ line1: '4, Ford End; rear', town: 'Otterfall', postcode: '04103' }],
      note: 'First line\nsecond, with \\ and ; in it',
    },
    {
      name: 'Zoë Świętosława Æthelflæd of the very long name that has to be folded somewhere behind its beginning',
      organisation: 'Rusk & Co',
      role: 'accounts',
      phones: [],
      mails: [],
      addresses: [],
    },
  ]
  it('is read by an independent parser (ical.js)', () => {
    const parsed = ICAL.parse(writeVcf(cards)) as unknown as [
      string,
      [string, object, string, unknown][],
    ][]
    const value = (i: number, name: string) =>
      parsed[i]![1].filter((p) => p[0] === name).map((p) => p[3])
    expect(parsed.map((p) => p[0])).toEqual(['vcard', 'vcard'])
    expect([
      value(0, 'fn'),
      value(0, 'tel'),
      value(0, 'email'),
      value(0, 'note'),
      value(0, 'adr'),
    ]).toEqual([
      ['Ada Birchall'],
      ['(607) 555-0119', '+44 20 7946 0958'],
      ['ada@example.com'],
      [cards[0]!.note],
      [['', '', '4, Ford End; rear', 'Otterfall', '', '04103', '']],
    ])
    expect(value(1, 'fn')).toEqual([cards[1]!.name])
  })
  it('folds at 75 octets', () => {
    for (const line of writeVcf(cards).split('\r\n'))
      expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
  })
  it('reads what it writes', () =>
    expect(readVcf(writeVcf(cards))).toEqual([cards[0], { ...cards[1] }]))
  it('reads what a telephone exports: version 3.0, groups, parameters, a picture in between', () => {
    const text =
      'BEGIN:VCARD\nVERSION:3.0\nN:Rusk;Bram;;;\nitem1.TEL;type=CELL;type="VOICE,x":tel:+1-607-555-0177\nPHOTO;ENCODING=b:aGVsbG8\n aGVsbG8\nitem2.ADR;TYPE=HOME:;;1 Ford End;Otterfall;NY;04103;USA\nEND:VCARD\n'
    expect(readVcf(text)).toEqual([
      {
        name: 'Bram Rusk',
        phones: ['+1-607-555-0177'],
        mails: [],
        addresses: [{ line1: '1 Ford End', town: 'Otterfall', postcode: '04103' }],
      },
    ])
  })
  it('becomes a table in which a firm is the customer and the person its contact', () => {
    const { head, rows } = cardsAsTable(cards)
    expect(recordOf(rows[1]!, guessColumns(head))).toMatchObject({
      name: 'Rusk & Co',
      contact_name: cards[1]!.name,
      contact_role: 'accounts',
    })
  })
  it('refuses a file without a card', () =>
    expect(() => readVcf('name,town\nRusk,Otterfall')).toThrow(RangeError))
})

describe('care agreements', () => {
  const a = { startsOn: '2026-01-01', endsOn: '2026-12-31', visitDueOn: '2026-06-01' }
  it.each([
    ['2025-12-31', 'not begun'],
    ['2026-05-01', 'in force'],
    ['2026-05-02', 'visit due in 30 days'],
    ['2026-05-31', 'visit due in 1 day'],
    ['2026-06-01', 'visit due today'],
    ['2026-06-11', 'visit overdue by 10 days'],
    ['2027-01-01', 'ended'],
  ])('on %s it is %j', (today, state) => expect(agreementState(a, today)).toBe(state))
  it('says that it ends when no visit is due', () =>
    expect(agreementState({ ...a, visitDueOn: null }, '2026-11-01')).toBe('ends in 60 days'))
  it.each([
    ['2026-01-31', 4, '2027-01-30', '2026-04-30'],
    ['2026-01-31', 12, '2027-01-30', '2026-02-28'],
    ['2026-06-01', 1, '2027-06-01', '2027-06-01'],
    ['2026-06-01', 1, '2027-05-31', null],
    ['2026-01-01', 5, '2026-12-31', '2026-03-01'],
  ])('after %s, %i a year until %s: %s', (last, visits, ends, next) =>
    expect(nextVisitDue(last, visits, ends)).toBe(next),
  )
})

describe('first free time', () => {
  const h = 3_600_000
  const working = [
    { from: 8 * h, to: 12 * h },
    { from: 13 * h, to: 17 * h },
  ]
  const gap = (busy: [number, number][], seconds: number, after = 0) => {
    const start = firstGap({
      working,
      busy: busy.map(([from, to]) => ({ from: from * h, to: to * h })),
      seconds,
      after: after * h,
    })
    return start === null ? null : start / h
  }
  it.each([
    [[], 3600, 0, 8],
    [[[8, 9]], 3600, 0, 9],
    [[[8.5, 9.1]], 3600, 0, 9.25],
    [
      [
        [8, 9],
        [9.5, 11.5],
      ],
      3600,
      0,
      13,
    ],
    [
      [
        [10, 11],
        [8, 9],
      ],
      3600,
      0,
      9,
    ],
    [[], 3600, 8.1, 8.25],
    [[], 5 * 3600, 0, null],
    [
      [
        [8, 12],
        [13, 17],
      ],
      900,
      0,
      null,
    ],
    [[[7, 18]], 900, 0, null],
  ] as [[number, number][], number, number, number | null][])(
    'busy %j, %i s, from %f: %s',
    (busy, seconds, after, start) => expect(gap(busy, seconds, after)).toBe(start),
  )
  const interval = fc.tuple(fc.integer({ min: 0, max: 95 }), fc.integer({ min: 1, max: 16 }))
  test.prop([fc.array(interval, { maxLength: 6 }), fc.integer({ min: 1, max: 16 })])(
    'touches nothing and stays within the hours',
    (taken, quarters) => {
      const busy = taken.map(([from, length]) => ({
        from: from * 900_000,
        to: (from + length) * 900_000,
      }))
      const start = firstGap({ working, busy, seconds: quarters * 900, after: 0 })
      if (start === null) return
      const end = start + quarters * 900_000
      expect(busy.some((b) => b.from < end && start < b.to)).toBe(false)
      expect(working.some((w) => w.from <= start && end <= w.to)).toBe(true)
    },
  )
})

describe('a balance handed over', () => {
  it('leaves the one and enters the other, account by account, and sums to nothing', () => {
    const postings = transferEntry([
      { account: 'receivable', amountMinor: 500 },
      { account: 'deposits', amountMinor: -200 },
      { account: 'tax', amountMinor: 0 },
    ])
    expect(postings.map((p) => [p.account, p.amountMinor, p.side])).toEqual([
      ['receivable', -500, 'from'],
      ['receivable', 500, 'to'],
      ['deposits', 200, 'from'],
      ['deposits', -200, 'to'],
    ])
    expect(postings.reduce((sum, p) => sum + p.amountMinor, 0)).toBe(0)
  })
  it('counts what is paid of a net in proportion, never more than there is', () => {
    expect([
      paidNet({ payableMinor: 10_700, paidMinor: 5350, netMinor: 10_000 }),
      paidNet({ payableMinor: 3, paidMinor: 1, netMinor: 2 }),
      paidNet({ payableMinor: 0, paidMinor: 0, netMinor: 0 }),
    ]).toEqual([5000, 0, 0])
  })
  it('a work order that sold something without a visit is to bill, billed, closed', () => {
    const sold = (toBillMinor: number, billedMinor: number, unpaidMinor: number) =>
      workOrderState({
        cancelled: false,
        closed: false,
        visits: [],
        toBillMinor,
        billedMinor,
        unpaidMinor,
      })
    expect([sold(0, 0, 0), sold(100, 0, 0), sold(0, 100, 100), sold(0, 100, 0)]).toEqual([
      'to_bill',
      'to_bill',
      'billed',
      'closed',
    ])
  })
})
