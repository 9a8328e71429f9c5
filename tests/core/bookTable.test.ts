// Price lists: what a row says, what a list would do to the book, and that what is written out is read in as the same.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { writeCsv } from '../../core/formats/csv'
import { readCsv } from '../../core/formats/readCsv'
import { readAmount } from '../../core/money/readAmount'
import {
  BOOK_FIELDS,
  guessBookColumns,
  readEntryRow,
  writeEntryRow,
  type EntryRecord,
} from '../../core/pricebook/bookTable'
import { importPlan, leavesOutMuch, type KnownEntry } from '../../core/pricebook/importPlan'

it.each([
  ['$1,200.50', '1200.5'],
  ['1,234,567', '1234567'],
  ['12', '12'],
  ['0.0325', '0.0325'],
  ['12,5', null],
  ['-3', null],
  ['', null],
  ['1.23456', null],
  ['twelve', null],
])('“%s” is the amount %s', (text, amount) => expect(readAmount(text)).toBe(amount))
it('guesses what columns mean, each once; a description is the name where nothing else is', () => {
  expect(guessBookColumns(['Part No.', 'Description', 'Net price', 'Stock'])).toEqual([
    'part_number',
    'name',
    'cost',
    null,
  ])
  expect(guessBookColumns(['code', 'name', 'description', 'price', 'sell price'])).toEqual([
    'code',
    'name',
    'description',
    'price',
    null,
  ])
  expect(guessBookColumns([...BOOK_FIELDS])).toEqual([...BOOK_FIELDS])
})
describe('a row', () => {
  const read = (field: (typeof BOOK_FIELDS)[number], cell: string) => readEntryRow([cell], [field])
  it.each([
    ['hours', '1.5', 'seconds', 5400],
    ['hours', '1:30', 'seconds', 5400],
    ['hours', '0:00:07', 'seconds', 7],
    ['sundries_percent', '3', 'sundriesRate', '0.03'],
    ['at_hand', 'yes', 'pinned', true],
    ['active_from', '', 'activeFrom', null],
    ['unit', '', 'unit', 'each'],
  ] as const)('%s “%s”', (field, cell, key, value) =>
    expect(read(field, cell).record[key]).toBe(value),
  )
  it('knows what stands inside', () =>
    expect(read('inside', '2 x P-1001; 1.5 × P-7').record.inside).toEqual([
      { quantity: '2', code: 'P-1001' },
      { quantity: '1.5', code: 'P-7' },
    ]))
  it.each([
    ['cost', '1,5'],
    ['kind', 'gadget'],
    ['hours', '1:75'],
    ['active_to', '2026-02-30'],
    ['retired', 'perhaps'],
    ['inside', 'a valve'],
    ['code', 'x'.repeat(25)],
    ['sundries_percent', 'some'],
  ] as const)('says what is wrong with %s “%s”', (field, cell) =>
    expect(read(field, cell).problems).toMatchObject([{ field }]),
  )
  it('an empty price says nothing, an empty supplier says that there is none', () =>
    expect(readEntryRow(['', ''], ['price', 'supplier']).record).toEqual({ supplier: '' }))
})
const entry: EntryRecord = {
  code: 'P-1',
  kind: 'part',
  category: 'Valve',
  name: 'Relief valve',
  description: '',
  technicianNote: '',
  synonyms: '',
  unit: 'each',
  cost: '10',
  pricing: 'rule',
  price: '20',
  furtherPrice: null,
  seconds: 0,
  furtherSeconds: 0,
  labour: '',
  sundriesRate: null,
  supplier: 'Northmoor',
  partNumber: 'NM-7',
  taxClass: 'goods',
  incomeCode: '',
  skills: [],
  pinned: false,
  activeFrom: null,
  activeTo: null,
  retired: false,
  inside: [],
}
const known: KnownEntry[] = [
  { ...entry, id: 'one' },
  { ...entry, id: 'two', code: 'P-2', partNumber: 'NM-8', pricing: 'fixed', price: '25' },
  {
    ...entry,
    id: 'task',
    code: 'T-1',
    kind: 'task',
    supplier: '',
    partNumber: '',
    labour: 'L',
    inside: [{ code: 'P-1', quantity: '1' }],
    furtherPrice: '9',
  },
  {
    ...entry,
    id: 'rate',
    code: 'L',
    kind: 'labour',
    supplier: '',
    partNumber: '',
    pricing: 'fixed',
  },
]
const plan = (by: 'code' | 'part', ...records: Partial<EntryRecord>[]) =>
  importPlan(
    records.map((record, i) => ({ row: i + 2, record, problems: [] })),
    known,
    {
      by,
      supplier: by === 'part' ? 'Northmoor' : '',
      category: 'New',
      taxClass: 'goods',
      taxClasses: new Set(['goods']),
    },
  )
describe('a list', () => {
  it('of a supplier is matched by part numbers: new, changed, as it is, vanished', () => {
    const got = plan(
      'part',
      { partNumber: 'nm-7', cost: '12' },
      { partNumber: 'NM-99', name: 'Check valve', cost: '4' },
    )
    expect(got.rows.map((r) => [r.state, r.id, r.changed])).toEqual([
      ['changed', 'one', ['cost', 'partNumber']],
      ['new', null, []],
    ])
    expect(got.rows[1]!.becomes).toMatchObject({
      code: 'NM-99',
      category: 'New',
      supplier: 'Northmoor',
      pricing: 'rule',
    })
    expect(got.vanished.map((v) => v.id)).toEqual(['two'])
    expect(plan('part', { partNumber: 'NM-7', cost: '10.00' }).rows[0]!.state).toBe('same')
  })
  it('leaves a fixed price fixed, and fixes one that it writes', () => {
    expect(plan('code', { code: 'P-2', cost: '30' }).rows[0]!.becomes).toMatchObject({
      pricing: 'fixed',
      price: '25',
      cost: '30',
    })
    expect(plan('code', { code: 'P-1', price: '21' }).rows[0]!.becomes).toMatchObject({
      pricing: 'fixed',
      price: '21',
    })
  })
  it.each([
    ['code', { code: 'P-1', kind: 'charge' }, 'kind'],
    ['code', { code: 'X', cost: '1' }, 'name'],
    ['code', { code: 'X', name: 'x' }, 'price'],
    ['code', { name: 'x', cost: '1' }, 'code'],
    ['code', { code: 'P-1', taxClass: 'none at all' }, 'tax_class'],
    ['code', { code: 'T-1', inside: [{ code: 'NOT', quantity: '1' }] }, 'inside'],
    ['code', { code: 'T-1', inside: [{ code: 'L', quantity: '1' }] }, 'inside'],
    ['code', { code: 'T-1', labour: 'P-1' }, 'labour'],
    ['code', { code: 'P-1', inside: [{ code: 'P-2', quantity: '1' }] }, 'inside'],
    ['code', { code: 'P-1', activeFrom: '2026-02-01', activeTo: '2026-01-01' }, 'active_to'],
    ['code', { code: 'A', name: 'Set', kind: 'assembly', price: '1' }, 'inside'],
    ['part', { name: 'x', cost: '1' }, 'part_number'],
    ['part', { partNumber: 'NM-9', name: 'x', cost: '1', code: 'P-1' }, 'code'],
  ] as const)('by %s: what is wrong with %j is said at %s', (by, record, field) =>
    expect(plan(by, record as Partial<EntryRecord>).rows[0]).toMatchObject({
      state: 'wrong',
      problems: [{ field }],
    }),
  )
  it('a bad row takes no good one with it, and of two about one entry the second is wrong', () =>
    expect(
      plan(
        'code',
        { code: 'P-1', cost: '11' },
        { code: 'P-1', cost: '12' },
        { code: 'P-2', cost: '13' },
      ).rows.map((r) => r.state),
    ).toEqual(['changed', 'wrong', 'changed']))
  it('a task may have inside what the same list brings', () =>
    expect(
      plan(
        'code',
        {
          code: 'T-9',
          kind: 'task',
          name: 'Fit it',
          labour: 'L',
          cost: '0',
          inside: [{ code: 'P-9', quantity: '2' }],
        },
        { code: 'P-9', name: 'It', cost: '3' },
      ).rows.map((r) => r.state),
    ).toEqual(['new', 'new']))
})
const words = fc
  .string({
    maxLength: 20,
    unit: fc.constantFrom(
      'a',
      'Z',
      '½',
      ',',
      '"',
      '\n',
      ';',
      '=',
      '+',
      '-',
      '@',
      "'",
      ' ',
      '7',
      'é',
    ),
  })
  .map((t) => t.trim())
const cents = fc.integer({ min: 0, max: 9_999_999 }).map((n) => (n / 100).toString())
const any = fc.record<EntryRecord>({
  code: fc.string({ minLength: 1, maxLength: 12, unit: fc.constantFrom('A', '7', '-', '=') }),
  kind: fc.constantFrom('task', 'part', 'labour', 'charge', 'assembly'),
  category: words.filter((w) => w !== ''),
  name: words.filter((w) => w !== ''),
  description: words,
  technicianNote: words,
  synonyms: words,
  unit: fc.constantFrom('each', 'ft', 'lot'),
  cost: cents,
  pricing: fc.constantFrom('rule', 'fixed'),
  price: cents,
  furtherPrice: fc.option(cents, { nil: null }),
  seconds: fc.integer({ min: 0, max: 360_000 }),
  furtherSeconds: fc.integer({ min: 0, max: 360_000 }),
  labour: fc.constantFrom('', 'L-1'),
  sundriesRate: fc.option(
    fc.integer({ min: 0, max: 1_000_000 }).map((n) => (n / 1e6).toString()),
    { nil: null },
  ),
  supplier: words,
  partNumber: words,
  taxClass: fc.constant('goods'),
  incomeCode: words,
  skills: fc.uniqueArray(fc.constantFrom('pumps', 'wells', 'lab')),
  pinned: fc.boolean(),
  activeFrom: fc.constantFrom(null, '2026-01-31'),
  activeTo: fc.constantFrom(null, '2027-12-01'),
  retired: fc.boolean(),
  inside: fc
    .uniqueArray(fc.constantFrom('P-1', 'P-2'), { maxLength: 2 })
    .map((codes) => codes.map((code, i) => ({ code, quantity: String(i + 0.5) }))),
})
test.prop([fc.array(any, { minLength: 1, maxLength: 5 })])(
  'what is written is read as the same, formulas and all',
  (entries) => {
    const table = readCsv(writeCsv([[...BOOK_FIELDS], ...entries.map(writeEntryRow)]))
    const columns = guessBookColumns(table.head)
    expect(table.rows.map((r) => readEntryRow(r, columns))).toEqual(
      entries.map((record) => ({ record, problems: [] })),
    )
  },
)
it.each([
  [10, 0, false],
  [11, 44, false],
  [11, 43, true],
  [890, 12, true],
  [30, 870, false],
])(
  'of a list that leaves out %i and names %i it is asked whether that is meant: %s',
  (vanished, named, asks) => expect(leavesOutMuch({ vanished, named })).toBe(asks),
)
