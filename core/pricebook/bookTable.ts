import { Decimal } from '../money/decimal'
import { readAmount } from '../money/readAmount'
import { searchKey } from '../text/searchKey'
import { isDay } from '../time/zone'
import { ENTRY_KINDS, type EntryKind } from './kinds'

/** What a column of a price list can mean; also the columns of our own export, in their order. */
export const BOOK_FIELDS = [
  'code',
  'kind',
  'category',
  'name',
  'description',
  'technician_note',
  'synonyms',
  'unit',
  'cost',
  'pricing',
  'price',
  'further_price',
  'hours',
  'further_hours',
  'labour',
  'sundries_percent',
  'supplier',
  'part_number',
  'tax_class',
  'income_code',
  'skills',
  'at_hand',
  'active_from',
  'active_to',
  'retired',
  'inside',
] as const
export type BookField = (typeof BOOK_FIELDS)[number]
/** An entry as a file tells it. What a file does not say is not there. Money in major units. */
export interface EntryRecord {
  code: string
  kind: EntryKind
  category: string
  name: string
  description: string
  technicianNote: string
  synonyms: string
  unit: string
  cost: string
  pricing: 'rule' | 'fixed'
  price: string
  furtherPrice: string | null
  seconds: number
  furtherSeconds: number
  /** the code of its labour rate; empty for none */ labour: string
  sundriesRate: string | null
  supplier: string
  partNumber: string
  taxClass: string
  incomeCode: string
  skills: string[]
  pinned: boolean
  activeFrom: string | null
  activeTo: string | null
  retired: boolean
  inside: { code: string; quantity: string }[]
}
export interface RowProblem {
  field: BookField
  message: string
}

/** Headings that people and suppliers use, as searchKey writes them; from our own reading of price lists, not from a standard. */
const HEADINGS: Record<BookField, string[]> = {
  code: ['code', 'our code', 'sku', 'item code'],
  kind: ['kind', 'type'],
  category: ['category', 'group', 'product group', 'section'],
  name: ['name', 'description', 'item', 'product', 'item name', 'title'],
  description: ['long description', 'customer description', 'for the customer', 'details'],
  technician_note: ['technician note', 'for the technician'],
  synonyms: ['synonyms', 'search words', 'keywords'],
  unit: ['unit', 'uom', 'sold by', 'per'],
  cost: ['cost', 'net price', 'buy price', 'trade price', 'your price', 'net', 'price each net'],
  pricing: ['pricing', 'priced'],
  price: ['price', 'sell', 'sell price', 'selling price', 'list price', 'retail'],
  further_price: ['further price', 'price as a further one'],
  hours: ['hours', 'labour hours', 'time'],
  further_hours: ['further hours'],
  labour: ['labour', 'labour rate'],
  sundries_percent: ['sundries percent', 'sundries'],
  supplier: ['supplier', 'vendor', 'wholesaler'],
  part_number: [
    'part number',
    'part no',
    'partno',
    'item no',
    'article',
    'catalogue number',
    'stock code',
    'product code',
  ],
  tax_class: ['tax class', 'tax'],
  income_code: ['income code', 'account'],
  skills: ['skills'],
  at_hand: ['at hand', 'pinned'],
  active_from: ['active from', 'valid from', 'from'],
  active_to: ['active to', 'valid to', 'until'],
  retired: ['retired'],
  inside: ['inside', 'parts', 'contains'],
}
/**
 * Proposes what each column means, by its heading; each meaning is given once, to the first column that fits.
 * @example guessBookColumns(['Part No.', 'Description', 'Net price', 'Stock']) // ['part_number', 'name', 'cost', null]
 */
export function guessBookColumns(head: readonly string[]): (BookField | null)[] {
  const taken = new Set<BookField>()
  const keys = head.map(searchKey)
  return keys.map((key) => {
    // Our own export's headings are exact; only where one is missing are others' words taken for it.
    // A supplier's “description” is what the thing is called, where nothing else is its name.
    const own =
      key === 'description' && !keys.includes('name')
        ? 'name'
        : BOOK_FIELDS.find((f) => key === searchKey(f))
    const field =
      (own && !taken.has(own) ? own : undefined) ??
      BOOK_FIELDS.find(
        (f) => !taken.has(f) && HEADINGS[f].includes(key) && !keys.includes(searchKey(f)),
      )
    if (!field) return null
    taken.add(field)
    return field
  })
}

const LIMITS: Partial<Record<BookField, number>> = {
  code: 24,
  category: 120,
  name: 160,
  description: 2000,
  technician_note: 2000,
  synonyms: 255,
  unit: 16,
  supplier: 80,
  part_number: 60,
  tax_class: 20,
  income_code: 24,
}
type Read = { value: unknown } | { message: string }
const ok = (value: unknown): Read => ({ value })
const bad = (message: string): Read => ({ message })
function yes(text: string): Read {
  if (['yes', 'true', '1', 'x'].includes(text.toLowerCase())) return ok(true)
  if (['', 'no', 'false', '0'].includes(text.toLowerCase())) return ok(false)
  return bad(`“${text}” is neither yes nor no.`)
}
function day(text: string): Read {
  if (text === '') return ok(null)
  return isDay(text) ? ok(text) : bad(`“${text}” is no date; write it as 2026-11-24.`)
}
function share(percent: string): Read {
  if (percent === '') return ok(null)
  return /^\d{1,3}(\.\d{1,4})?$/.test(percent)
    ? ok(new Decimal(percent).div(100).toString())
    : bad(`“${percent}” is no percentage.`)
}
function amount(text: string): Read {
  const read = readAmount(text)
  return read === null ? bad(`“${text}” is no amount; write it as 1234.50.`) : ok(read)
}
function secondsIn(text: string): number {
  if (text === '') return 0
  const clock = /^(\d{1,3}):([0-5]\d)(?::([0-5]\d))?$/.exec(text)
  if (clock) return Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number(clock[3] ?? 0)
  const decimal = /^\d{1,2}(\.\d{1,4})?$/.test(text)
  return decimal ? new Decimal(text).times(3600).round().toNumber() : NaN
}
function hours(text: string): Read {
  const seconds = secondsIn(text)
  return Number.isNaN(seconds) || seconds > 360_000
    ? bad(`“${text}” are no hours; write 1.5 or 1:30.`)
    : ok(seconds)
}
function inside(text: string): Read {
  const parts = text
    .split(';')
    .map((p) => p.trim())
    .filter(Boolean)
    .map((p) => /^(\d{1,9}(?:\.\d{1,3})?)\s*[x×]\s*(\S{1,24})$/.exec(p))
  return parts.includes(null)
    ? bad('Write what is inside as 2 x P-1001; 1 x P-1002.')
    : ok(parts.map((p) => ({ quantity: new Decimal(p![1]!).toString(), code: p![2]! })))
}
const text = (value: string): Read => ok(value)
const READERS: Record<BookField, [keyof EntryRecord, (text: string) => Read]> = {
  code: ['code', text],
  kind: [
    'kind',
    (t) =>
      ENTRY_KINDS.includes(t.toLowerCase() as EntryKind)
        ? ok(t.toLowerCase())
        : bad(`“${t}” is none of ${ENTRY_KINDS.join(', ')}.`),
  ],
  category: ['category', text],
  name: ['name', text],
  description: ['description', text],
  technician_note: ['technicianNote', text],
  synonyms: ['synonyms', text],
  unit: ['unit', (t) => ok(t || 'each')],
  cost: ['cost', amount],
  pricing: [
    'pricing',
    (t) => (t === 'rule' || t === 'fixed' ? ok(t) : bad(`“${t}” is neither rule nor fixed.`)),
  ],
  price: ['price', amount],
  further_price: ['furtherPrice', (t) => (t === '' ? ok(null) : amount(t))],
  hours: ['seconds', hours],
  further_hours: ['furtherSeconds', hours],
  labour: ['labour', text],
  sundries_percent: ['sundriesRate', share],
  supplier: ['supplier', text],
  part_number: ['partNumber', text],
  tax_class: ['taxClass', text],
  income_code: ['incomeCode', text],
  skills: [
    'skills',
    (t) =>
      ok(
        t
          .split(',')
          .map((s) => s.trim())
          .filter(Boolean),
      ),
  ],
  at_hand: ['pinned', yes],
  active_from: ['activeFrom', day],
  active_to: ['activeTo', day],
  retired: ['retired', yes],
  inside: ['inside', inside],
}
/**
 * One row as a record, with what is wrong in it by field. Amounts may have a currency sign and commas between thousands; hours may be
 * decimal or h:mm. An empty cell of an amount, of a kind or of a way of pricing says nothing; any other empty cell says that it is empty.
 * @example readEntryRow(['P-1', '$1,200.50'], ['code', 'cost']).record // { code: 'P-1', cost: '1200.5' }
 */
export function readEntryRow(
  cells: readonly string[],
  columns: readonly (BookField | null)[],
): { record: Partial<EntryRecord>; problems: RowProblem[] } {
  const record: Partial<Record<keyof EntryRecord, unknown>> = {}
  const problems: RowProblem[] = []
  for (const [i, field] of columns.entries()) {
    if (!field) continue
    const cell = plainCell(cells[i] ?? '')
    if (
      cell === '' &&
      ['code', 'kind', 'name', 'category', 'cost', 'price', 'pricing', 'tax_class'].includes(field)
    )
      continue
    const [key, read] = READERS[field]
    const got =
      cell.length > (LIMITS[field] ?? 4000)
        ? bad(`Longer than ${LIMITS[field]} signs.`)
        : read(cell)
    if ('message' in got) problems.push({ field, message: got.message })
    else record[key] = got.value
  }
  return { record: record as Partial<EntryRecord>, problems }
}
const clock = (seconds: number) =>
  [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60]
    .map((n) => String(n).padStart(2, '0'))
    .join(':')
/**
 * An entry as a row of our own export: what `readEntryRow` makes of it is the same entry.
 * @example writeEntryRow(entry)[0] // 'P-1001'
 */
export function writeEntryRow(e: EntryRecord): string[] {
  const cells: Record<BookField, string> = {
    code: e.code,
    kind: e.kind,
    category: e.category,
    name: e.name,
    description: e.description,
    technician_note: e.technicianNote,
    synonyms: e.synonyms,
    unit: e.unit,
    cost: plain(e.cost),
    pricing: e.pricing,
    price: plain(e.price),
    further_price: e.furtherPrice === null ? '' : plain(e.furtherPrice),
    hours: e.seconds ? clock(e.seconds) : '',
    further_hours: e.furtherSeconds ? clock(e.furtherSeconds) : '',
    labour: e.labour,
    sundries_percent:
      e.sundriesRate === null ? '' : new Decimal(e.sundriesRate).times(100).toString(),
    supplier: e.supplier,
    part_number: e.partNumber,
    tax_class: e.taxClass,
    income_code: e.incomeCode,
    skills: e.skills.join(', '),
    at_hand: e.pinned ? 'yes' : '',
    active_from: e.activeFrom ?? '',
    active_to: e.activeTo ?? '',
    retired: e.retired ? 'yes' : '',
    inside: e.inside.map((p) => `${plain(p.quantity)} x ${p.code}`).join('; '),
  }
  return BOOK_FIELDS.map((f) => guarded(cells[f]))
}
const plain = (n: string) => new Decimal(n).toString()
/** What a spreadsheet would run as a formula is written with an apostrophe before it; a cell that has one already gets a second, so that reading is exact. */
const RISKY = /^'*[=+\-@\t\r]/
const guarded = (cell: string) => (RISKY.test(cell) ? `'${cell}` : cell)
const plainCell = (cell: string) =>
  cell.startsWith("'") && RISKY.test(cell) ? cell.slice(1) : cell
