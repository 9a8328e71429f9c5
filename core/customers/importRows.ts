import { guessMeanings, rowByMeaning } from '../formats/columns'
import type { Card } from '../formats/vcf'
import type { Table } from '../formats/readCsv'

/** What a column of a file can mean. */
export const IMPORT_FIELDS = [
  'name',
  'phone',
  'phone2',
  'email',
  'email2',
  'billing_address',
  'billing_town',
  'billing_postcode',
  'site_name',
  'site_address',
  'site_town',
  'site_postcode',
  'contact_name',
  'contact_role',
  'contact_phone',
  'contact_email',
  'tags',
  'note',
] as const
export type ImportField = (typeof IMPORT_FIELDS)[number]
export type ImportRecord = Partial<Record<ImportField, string>>

/** Headings that people use, as searchKey writes them; from our own reading of address lists, not from a standard. */
const HEADINGS: Record<ImportField, string[]> = {
  name: ['name', 'customer', 'customer name', 'company', 'client', 'full name', 'display name'],
  phone: ['phone', 'telephone', 'tel', 'phone number', 'main phone', 'phone 1', 'mobile'],
  phone2: [
    'phone 2',
    'second phone',
    'second telephone',
    'phone2',
    'other phone',
    'alt phone',
    'cell',
  ],
  email: ['email', 'e mail', 'mail', 'mail address', 'email address', 'main email'],
  email2: ['email 2', 'email2', 'second email', 'second mail address', 'cc'],
  billing_address: [
    'address',
    'street',
    'billing address',
    'bill to',
    'line1',
    'address 1',
    'billing street',
  ],
  billing_town: ['town', 'city', 'billing city', 'billing town', 'place'],
  billing_postcode: [
    'postcode',
    'zip',
    'zip code',
    'postal code',
    'billing zip',
    'billing postcode',
  ],
  site_name: ['site', 'site name', 'location', 'property'],
  site_address: [
    'site address',
    'service address',
    'location address',
    'job address',
    'site street',
  ],
  site_town: ['site town', 'site city', 'service city'],
  site_postcode: ['site postcode', 'site zip', 'service zip'],
  contact_name: ['contact', 'contact name', 'contact person'],
  contact_role: ['role', 'contact role', 'position'],
  contact_phone: ['contact phone', 'contact telephone'],
  contact_email: ['contact email', 'contact mail'],
  tags: ['tags', 'tag', 'group', 'category'],
  note: ['note', 'notes', 'remarks', 'comment', 'comments'],
}

/**
 * Proposes what each column means, by its heading.
 * @example guessColumns(['Customer', 'City', 'Shoe size']) // ['name', 'billing_town', null]
 */
export const guessColumns = (head: readonly string[]): (ImportField | null)[] =>
  guessMeanings(head, HEADINGS)

/** One row as a record: columns without a meaning are left out. */
export const recordOf = (
  row: readonly string[],
  columns: readonly (ImportField | null)[],
): ImportRecord => rowByMeaning(row, columns)

const LIMITS: Record<ImportField, number> = {
  name: 160,
  phone: 32,
  phone2: 32,
  email: 160,
  email2: 160,
  billing_address: 160,
  billing_town: 80,
  billing_postcode: 16,
  site_name: 120,
  site_address: 160,
  site_town: 80,
  site_postcode: 16,
  contact_name: 120,
  contact_role: 40,
  contact_phone: 32,
  contact_email: 160,
  tags: 200,
  note: 2000,
}
const MAIL = /^[^\s@]+@[^\s@]+\.[^\s@]+$/

/**
 * What is wrong with a record, by field; an empty list when it can be taken. A number that is none is not an error:
 * people write "ask the neighbour" there.
 */
export function recordProblems(record: ImportRecord): { field: ImportField; message: string }[] {
  const problems: { field: ImportField; message: string }[] = []
  if (!record.name) problems.push({ field: 'name', message: 'There is no name.' })
  for (const [field, value] of Object.entries(record) as [ImportField, string][]) {
    if (value.length > LIMITS[field])
      problems.push({ field, message: `Longer than ${LIMITS[field]} signs.` })
    else if (field.includes('email') && !MAIL.test(value))
      problems.push({ field, message: `“${value}” is not a mail address.` })
  }
  return problems
}

/** What a card says, under the names that an import knows. */
function rowOfCard(c: Card): Partial<Record<ImportField, string | undefined>> {
  const firm = c.organisation && c.organisation !== c.name ? c.organisation : ''
  const [address] = c.addresses
  return {
    name: firm || c.name,
    phone: c.phones[0],
    phone2: c.phones[1],
    email: c.mails[0],
    email2: c.mails[1],
    billing_address: address?.line1,
    billing_town: address?.town,
    billing_postcode: address?.postcode,
    ...(firm ? { contact_name: c.name, contact_role: c.role } : {}),
    note: c.note,
  }
}
/** Cards of an address book as the table that an import reads. */
export function cardsAsTable(cards: readonly Card[]): Table {
  const head: ImportField[] = [
    'name',
    'phone',
    'phone2',
    'email',
    'email2',
    'billing_address',
    'billing_town',
    'billing_postcode',
    'contact_name',
    'contact_role',
    'note',
  ]
  const rows = cards.map(rowOfCard).map((row) => head.map((field) => row[field] ?? ''))
  return { head, rows }
}
