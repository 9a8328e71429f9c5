// SQL of customers: one, many, found by words and numbers.
import { placeholders, sqlInstant, type Tx, type Value } from '../db/pool'
import { listOf, listRows, type ListIn } from '../db/queries'
import type { Finder } from '../db/search.queries'
import type { Terms } from '../../core/documents/dueDate'
import type { PriceLevel } from '../../core/pricebook/levelPrice'

export type Consent = 'not asked' | 'yes' | 'no'
export interface CustomerRow {
  id: string
  name: string
  prospect: boolean
  phone: string
  phone2: string
  email: string
  email2: string
  line1: string
  town: string
  postcode: string
  terms: Terms | null
  source: string
  assignedTo: string | null
  priceLevelId: string | null
  quoteLayoutId: string | null
  invoiceLayoutId: string | null
  taxExempt: boolean
  certificate: string
  exemptUntil: string | null
  officeNote: string
  printedNote: string
  tags: string[]
  stopWork: string
  creditLimit: number | null
  ownPrices: Record<string, string>
  mailConsent: Consent
  textConsent: Consent
  custom: Record<string, string>
  mergedInto: string | null
  erasedAt: string | null
  importId: string | null
  version: number
}
export const COLUMNS = `c.id, c.name, c.prospect, c.phone, c.phone2, c.email, c.email2, c.line1, c.town,
    c.postcode, c.terms, c.source, c.assigned_to, c.price_level_id, c.quote_layout_id, c.invoice_layout_id, c.tax_exempt,
    c.exempt_certificate AS certificate, c.exempt_until, c.office_note, c.printed_note, c.tags,
    c.stop_work, c.credit_limit_minor AS creditLimit, c.own_prices, c.mail_consent, c.text_consent,
    c.custom, c.merged_into, c.erased_at, c.import_id, c.version`
/** Customers, beside other lists; `from` begins with `customers c`. */
export const customersIn = (from: string, values: Value[]): ListIn => ({
  columns: COLUMNS,
  from,
  values,
  order: 'c.id',
  instants: ['erasedAt'],
  booleans: ['prospect', 'taxExempt'],
})
export const customersById = async (tx: Tx, ids: string[]) =>
  tx.rows<CustomerRow>(
    `SELECT ${COLUMNS} FROM customers c WHERE c.id IN (${placeholders(ids)})`,
    ids,
  )
/** Whose number it is; numbers are kept in one form, so they can be compared as they stand. */
export const customersByPhone = async (tx: Tx, phone: string) =>
  tx.rows<CustomerRow>(
    `SELECT ${COLUMNS}
    FROM customers c
    WHERE c.merged_into IS NULL AND ? <> '' AND (c.phone = ? OR c.phone2 = ?) LIMIT 20`,
    [phone, phone, phone],
  )
export const customerById = async (tx: Tx, id: string, lock = false) => {
  return await tx.row<CustomerRow>(
    `SELECT ${COLUMNS} FROM customers c WHERE c.id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
}
export type LevelRow = PriceLevel & { kind: string }
export const levelsIn: ListIn = {
  columns: 'id, name, kind, off',
  from: 'price_levels',
  values: [],
  order: 'id',
}
export const levels = async (tx: Tx): Promise<LevelRow[]> => listOf<LevelRow>(tx, levelsIn)
export const insertCustomer = (
  tx: Tx,
  c: {
    id: string
    name: string
    phone: string
    phone2?: string
    email: string
    email2: string
    line1: string
    town: string
    postcode: string
    terms?: Terms | null
    levelId?: string | null
    exempt?: boolean
    certificate?: string
    note?: string
    tags?: string[]
    stopWork?: string
    source: string
    prospect?: boolean
    importId?: string | null
    search: string
    now: number
  },
) =>
  tx.run(
    `INSERT INTO customers (id, name, prospect, phone, phone2, email, email2, line1, town, postcode,
      terms, price_level_id, tax_exempt, exempt_certificate, office_note, tags, stop_work, source,
      import_id, search, created_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      c.id,
      c.name,
      c.prospect ?? false,
      c.phone,
      c.phone2 ?? '',
      c.email,
      c.email2,
      c.line1,
      c.town,
      c.postcode,
      c.terms ? JSON.stringify(c.terms) : null,
      c.levelId ?? null,
      c.exempt ?? false,
      c.certificate ?? '',
      c.note ?? '',
      JSON.stringify(c.tags ?? []),
      c.stopWork ?? '',
      c.source,
      c.importId ?? null,
      c.search,
      sqlInstant(c.now),
    ],
  )
/** Columns that a change may touch, by the name that it has outside. */
const CHANGEABLE = {
  customers: {
    name: 'name',
    phone: 'phone',
    phone2: 'phone2',
    email: 'email',
    email2: 'email2',
    line1: 'line1',
    town: 'town',
    postcode: 'postcode',
    officeNote: 'office_note',
    printedNote: 'printed_note',
    tags: 'tags',
    stopWork: 'stop_work',
    source: 'source',
    search: 'search',
    prospect: 'prospect',
    assignedTo: 'assigned_to',
    terms: 'terms',
    priceLevelId: 'price_level_id',
    quoteLayoutId: 'quote_layout_id',
    invoiceLayoutId: 'invoice_layout_id',
    taxExempt: 'tax_exempt',
    certificate: 'exempt_certificate',
    exemptUntil: 'exempt_until',
    creditLimit: 'credit_limit_minor',
    ownPrices: 'own_prices',
    mailConsent: 'mail_consent',
    textConsent: 'text_consent',
    custom: 'custom',
    mergedInto: 'merged_into',
    erasedAt: 'erased_at',
  },
  sites: {
    name: 'name',
    line1: 'line1',
    town: 'town',
    postcode: 'postcode',
    accessNote: 'access_note',
    custom: 'custom',
    search: 'search',
    lat: 'lat',
    lon: 'lon',
  },
  contacts: {
    siteId: 'site_id',
    name: 'name',
    role: 'role',
    phone: 'phone',
    phone2: 'phone2',
    email: 'email',
    removed: 'removed',
  },
  equipment: {
    category: 'category',
    make: 'make',
    serial: 'serial',
    installedOn: 'installed_on',
    warrantyUntil: 'warranty_until',
    nextServiceOn: 'next_service_on',
    note: 'note',
    removed: 'removed',
  },
} as const
/** Changes what is named, where the version is still the one that was seen. Lists and records are kept as JSON. Returns the rows changed. */
export async function updateRow<T extends keyof typeof CHANGEABLE>(
  tx: Tx,
  table: T,
  { id, version }: { id: string; version: number },
  values: Partial<Record<keyof (typeof CHANGEABLE)[T], unknown>>,
): Promise<number> {
  const columns = CHANGEABLE[table] as Record<string, string>
  const entries = Object.entries(values).filter(
    ([key, value]) => key in columns && value !== undefined,
  )
  const sql = entries
    .map(([key]) => `${columns[key]} = ?`)
    .concat('version = version + 1')
    .join(', ')
  return (
    await tx.run(`UPDATE ${table} SET ${sql} WHERE id = ? AND version = ?`, [
      ...entries.map(([, v]) =>
        v !== null && typeof v === 'object' ? JSON.stringify(v) : (v as Value),
      ),
      id,
      version,
    ])
  ).affected
}
const SORTS: Record<string, string> = { name: 'c.name', town: 'c.town' }
const CUSTOMER_WORDS: Finder[] = [{ id: 'o.id', from: 'customers o', words: 'o.search' }]
/** Whether more is open than there are credits: what `owedIn` sums up, for a filter. */
const OWES = `(SELECT SUM(i.open_minor) FROM invoices i WHERE i.customer_id = c.id) >
    (SELECT COALESCE(SUM(p.amount_minor), 0) FROM payments p WHERE p.customer_id = c.id AND
    p.received_on <= ? AND (p.bounced_on IS NULL OR p.bounced_on > ?)) -
    (SELECT COALESCE(SUM(a.amount_minor), 0) FROM payments p JOIN allocations a ON a.payment_id =
    p.id WHERE p.customer_id = c.id AND p.received_on <= ? AND a.on_date <= ?)`
export async function customerPage(
  tx: Tx,
  f: {
    today: string
    q?: string | undefined
    owing?: boolean | undefined
    kind?: string | undefined
    tag?: string | undefined
    sort: string
    descending: boolean
    limit: number
    after: [string, string] | null
  },
) {
  const where = ['c.merged_into IS NULL']
  const values: Value[] = []
  if (f.owing) {
    where.push(
      'EXISTS (SELECT 1 FROM invoices i WHERE i.customer_id = c.id AND i.open_minor > 0)',
      OWES,
    )
    values.push(f.today, f.today, f.today, f.today)
  }
  if (f.kind) where.push(f.kind === 'prospect' ? 'c.prospect' : 'NOT c.prospect')
  if (f.tag) {
    where.push('JSON_CONTAINS(c.tags, JSON_QUOTE(?))')
    values.push(f.tag)
  }
  return listRows<{
    id: string
    name: string
    phone: string
    email: string
    town: string
    prospect: boolean
    tags: string[]
    sites: number
    nextVisit: string | null
    /** number and state of a quote that is not answered yet: `Q-105 draft` */
    quote: string | null
    assigned: string | null
  }>(tx, {
    select: `c.id, c.name, c.phone, c.email, c.town, c.prospect, c.tags,
        (SELECT COUNT(*) FROM sites s WHERE s.customer_id = c.id) AS sites, IF(c.prospect, (SELECT
        MIN(v.start_at) FROM visits v JOIN work_orders w ON w.id = v.work_order_id WHERE
        w.customer_id = c.id AND v.state = 'planned'), NULL) AS nextVisit,
        IF(c.prospect, (SELECT CONCAT(q.number, ' ', q.state) FROM quotes q WHERE q.customer_id = c.id AND q.state IN ('draft', 'sent')
        ORDER BY q.created_at DESC LIMIT 1), NULL) AS quote,
        (SELECT p.name FROM people p WHERE p.id = c.assigned_to) AS assigned`,
    from: 'customers c',
    where,
    values,
    search: { q: f.q ?? '', finders: CUSTOMER_WORDS, text: ['c.search'] },
    by: SORTS[f.sort] ?? 'c.name',
    id: 'c.id',
    descending: f.descending,
    limit: f.limit,
    after: f.after,
  })
}
