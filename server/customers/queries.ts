// SQL of customers, sites, contacts, equipment and files.
import type { StoredInvoiceState } from '../../core/invoices/invoiceLifecycle'
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
const COLUMNS = `c.id, c.name, c.prospect, c.phone, c.phone2, c.email, c.email2, c.line1, c.town,
    c.postcode, c.terms, c.source, c.assigned_to, c.price_level_id, c.tax_exempt,
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

export interface SiteRow {
  id: string
  customerId: string
  name: string
  line1: string
  town: string
  postcode: string
  lat: number | null
  lon: number | null
  accessNote: string
  custom: Record<string, string>
  version: number
}
const SITE =
  's.id, s.customer_id, s.name, s.line1, s.town, s.postcode, s.lat, s.lon, s.access_note, s.custom, s.version'
/** Sites, beside other lists; `from` begins with `sites s`. */
export const sitesIn = (from: string, values: Value[]): ListIn => ({
  columns: SITE,
  from,
  values,
  order: 's.id',
})
export const sitesOfIn = (customerIds: string[]) =>
  sitesIn(`sites s WHERE s.customer_id IN (${placeholders(customerIds)})`, customerIds)
export const sitesOf = async (tx: Tx, customerIds: string[]) =>
  listOf<SiteRow>(tx, sitesOfIn(customerIds))
export const siteById = (tx: Tx, id: string, lock = false) =>
  tx.row<SiteRow>(`SELECT ${SITE} FROM sites s WHERE s.id = ?${lock ? ' FOR UPDATE' : ''}`, [id])
export interface ContactRow {
  id: string
  customerId: string
  siteId: string | null
  name: string
  role: string
  phone: string
  phone2: string
  email: string
  version: number
}
const CONTACT = 'id, customer_id, site_id, name, role, phone, phone2, email, version'
export const contactsIn = (customerIds: string[]): ListIn => ({
  columns: CONTACT,
  from: `contacts WHERE customer_id IN (${placeholders(customerIds)}) AND NOT removed`,
  values: customerIds,
  order: 'name, id',
})
export const contactsOf = (tx: Tx, customerIds: string[]) =>
  listOf<ContactRow>(tx, contactsIn(customerIds))
export const contactById = (tx: Tx, id: string, lock = false) =>
  tx.row<ContactRow>(`SELECT ${CONTACT} FROM contacts WHERE id = ?${lock ? ' FOR UPDATE' : ''}`, [
    id,
  ])
export interface EquipmentRow {
  id: string
  siteId: string
  customerId: string
  category: string
  make: string
  serial: string
  installedOn: string | null
  warrantyUntil: string | null
  nextServiceOn: string | null
  note: string
  version: number
}
const EQUIPMENT = `e.id, e.site_id, s.customer_id, e.category, e.make, e.serial, e.installed_on,
    e.warranty_until, e.next_service_on, e.note, e.version`
const EQUIPMENT_FROM = 'equipment e JOIN sites s ON s.id = e.site_id'
/** Equipment, beside other lists. */
export const equipmentIn = (where: string, values: Value[]): ListIn => ({
  columns: EQUIPMENT,
  from: `${EQUIPMENT_FROM} WHERE ${where}`,
  values,
  order: 'e.category, e.id',
})
export const equipmentOfIn = (customerIds: string[]) =>
  equipmentIn(`s.customer_id IN (${placeholders(customerIds)}) AND NOT e.removed`, customerIds)
export const equipmentById = (tx: Tx, id: string, lock = false) =>
  tx.row<EquipmentRow>(
    `SELECT ${EQUIPMENT} FROM ${EQUIPMENT_FROM} WHERE e.id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )

/** `owed` is what is open on invoices less credits, as ageing has it; only who owes is late. */
export interface Owed {
  customerId: string
  owed: number
  credits: number
  over60: number
  oldest: string | null
}
const open = (ids: string[]) =>
  `SELECT customer_id, open_minor AS open, 0 AS credit, due_on
  FROM invoices
  WHERE open_minor <> 0 AND customer_id IN (${placeholders(ids)})`
const creditsOf = (ids: string[]) =>
  `SELECT customer_id, 0 AS open, amount_minor AS credit, NULL AS due_on
  FROM payments
  WHERE received_on <= ? AND (bounced_on IS NULL OR bounced_on > ?)
    AND customer_id IN (${placeholders(ids)})
  UNION ALL SELECT p.customer_id, 0, -a.amount_minor, NULL
  FROM payments p
  JOIN allocations a ON a.payment_id = p.id
  WHERE p.received_on <= ? AND a.on_date <= ?
    AND p.customer_id IN (${placeholders(ids)})`
export const owedIn = (ids: string[], today: string): ListIn => ({
  columns: 'o.customer_id, o.owed, o.credits, o.over60, IF(o.owed > 0, o.oldest, NULL) AS oldest',
  from: `(SELECT customer_id, CAST(SUM(open - credit) AS SIGNED) AS owed, CAST(SUM(credit) AS
      SIGNED) AS credits, CAST(SUM(IF(due_on < DATE_SUB(?, INTERVAL 60 DAY), open, 0)) AS SIGNED) AS
      over60, MIN(IF(open > 0 AND due_on < ?, due_on, NULL)) AS oldest FROM (${open(ids)} UNION ALL
      ${creditsOf(ids)}) x GROUP BY customer_id) o`,
  values: [today, today, ...ids, today, today, ...ids, today, today, ...ids],
  order: 'o.customer_id',
})
export const owedBy = (tx: Tx, ids: string[], today: string) => listOf<Owed>(tx, owedIn(ids, today))
export interface WorkRow {
  customerId: string
  id: string
  number: string
  title: string
  state: string
  on: string
  equipmentId: string | null
}
const WORK =
  'SELECT customer_id, id, number, title, state, DATE(created_at) AS `on`, equipment_id FROM work_orders'
export const openWorkOf = (tx: Tx, ids: string[]) =>
  tx.rows<WorkRow>(
    `${WORK}
    WHERE customer_id IN (${placeholders(ids)}) AND state NOT IN ('closed', 'cancelled', 'billed')
    ORDER BY created_at DESC LIMIT 200`,
    ids,
  )
export const lastWorkOf = (tx: Tx, customerId: string) =>
  tx.rows<WorkRow>(
    `SELECT w.customer_id, w.id, w.number, w.title, w.state, DATE(MAX(v.finished_at)) AS \`on\`,
      w.equipment_id
    FROM work_orders w
    JOIN visits v ON v.work_order_id = w.id
      AND v.state = 'finished'
    WHERE w.customer_id = ?
    GROUP BY w.customer_id, w.id, w.number, w.title, w.state, w.equipment_id
    ORDER BY MAX(v.finished_at) DESC LIMIT 6`,
    [customerId],
  )
export interface Supplied {
  siteId: string
  on: string
  name: string
  workOrderId: string
  number: string
}
/** What was supplied to a customer’s sites before, the latest first. */
export const suppliedIn = (customerId: string): ListIn => ({
  columns:
    'w.site_id, DATE(COALESCE(w.done_at, w.created_at)) AS `on`, l.name, w.id AS workOrderId, w.number',
  from: `work_lines l
    JOIN work_orders w ON w.id = l.work_order_id
    WHERE w.customer_id = ? AND l.kind IN ('part', 'task') AND l.done AND NOT l.removed`,
  values: [customerId],
  order: 'COALESCE(w.done_at, w.created_at) DESC, l.position',
  limit: 60,
})
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
export const insertSite = (
  tx: Tx,
  s: {
    id: string
    customerId: string
    name: string
    line1: string
    town: string
    postcode: string
    lat: number | null
    lon: number | null
    accessNote: string
    custom?: object
    importId?: string | null
    search: string
  },
) =>
  tx.run(
    `INSERT INTO sites (id, customer_id, name, line1, town, postcode, lat, lon, access_note, custom,
      import_id, search)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      s.id,
      s.customerId,
      s.name,
      s.line1,
      s.town,
      s.postcode,
      s.lat,
      s.lon,
      s.accessNote,
      JSON.stringify(s.custom ?? {}),
      s.importId ?? null,
      s.search,
    ],
  )
export const insertContact = (
  tx: Tx,
  k: {
    id: string
    customerId: string
    siteId: string | null
    name: string
    role: string
    phone: string
    phone2: string
    email: string
    importId?: string | null
  },
) =>
  tx.run(
    `INSERT INTO contacts (id, customer_id, site_id, name, role, phone, phone2, email, import_id,
      search)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, "")`,
    [k.id, k.customerId, k.siteId, k.name, k.role, k.phone, k.phone2, k.email, k.importId ?? null],
  )
export const insertEquipment = (
  tx: Tx,
  e: {
    id: string
    siteId: string
    category: string
    make: string
    serial: string
    installedOn: string | null
    warrantyUntil: string | null
    nextServiceOn: string | null
    note: string
  },
) =>
  tx.run(
    `INSERT INTO equipment (id, site_id, category, make, serial, installed_on, warranty_until,
      next_service_on, note)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      e.id,
      e.siteId,
      e.category,
      e.make,
      e.serial,
      e.installedOn,
      e.warrantyUntil,
      e.nextServiceOn,
      e.note,
    ],
  )
/** Where the middle of a postcode or town is, from the sites already known there. */
export const middleOf = (tx: Tx, town: string, postcode: string) =>
  tx.row<{ lat: number | null; lon: number | null }>(
    `SELECT AVG(lat) AS lat, AVG(lon) AS lon
    FROM sites
    WHERE lat IS NOT NULL AND ((postcode <> "" AND postcode = ?) OR (town <> "" AND town = ?))`,
    [postcode, town],
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
  id: string,
  version: number,
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
const SITE_WORDS: Finder[] = [
  { id: 'o.id', from: 'sites o', words: 'o.search' },
  { id: 'o.id', from: 'customers k JOIN sites o ON o.customer_id = k.id', words: 'k.search' },
]
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
    assigned: string | null
  }>(tx, {
    select: `c.id, c.name, c.phone, c.email, c.town, c.prospect, c.tags,
        (SELECT COUNT(*) FROM sites s WHERE s.customer_id = c.id) AS sites, IF(c.prospect, (SELECT
        MIN(v.start_at) FROM visits v JOIN work_orders w ON w.id = v.work_order_id WHERE
        w.customer_id = c.id AND v.state = 'planned'), NULL) AS nextVisit,
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
const SITE_SORTS: Record<string, string> = { address: 's.line1', town: 's.town' }
export async function sitePage(
  tx: Tx,
  f: {
    q: string
    postcodes: string[] | null
    sort: string
    descending: boolean
    limit: number
    after: [string, string] | null
  },
) {
  // A customer that was merged has no sites left: nothing has to be asked of the customers to count.
  const where: string[] = []
  const values: Value[] = []
  if (f.postcodes) {
    where.push(
      f.postcodes.length ? `(${f.postcodes.map(() => 's.postcode LIKE ?').join(' OR ')})` : 'FALSE',
    )
    values.push(...f.postcodes.map((p) => `${p}%`))
  }
  return listRows<{
    id: string
    customerId: string
    customer: string
    name: string
    line1: string
    town: string
    postcode: string
    equipment: number
    accessNote: string
  }>(tx, {
    select: `s.id, s.customer_id, c.name AS customer, s.name, s.line1, s.town, s.postcode,
        (SELECT COUNT(*) FROM equipment e WHERE e.site_id = s.id AND NOT e.removed) AS equipment,
        s.access_note`,
    from: 'sites s STRAIGHT_JOIN customers c ON c.id = s.customer_id',
    countFrom: 'sites s',
    where,
    values,
    search: { q: f.q, finders: SITE_WORDS, text: ['s.search', 'c.search'] },
    by: SITE_SORTS[f.sort] ?? 's.line1',
    id: 's.id',
    descending: f.descending,
    limit: f.limit,
    after: f.after,
  })
}

/** What the match index is made of; all customers, or some. */
export async function matchRows(tx: Tx, ids: string[] | null) {
  const of = (column: string) => (ids ? `WHERE ${column} IN (${placeholders(ids)})` : '')
  const values = ids ?? []
  return {
    customers: await tx.rows<{
      id: string
      name: string
      phone: string
      phone2: string
      email: string
      email2: string
      line1: string
      town: string
      postcode: string
      tags: string[]
      custom: Record<string, unknown>
      mergedInto: string | null
    }>(
      `SELECT id, name, phone, phone2, email, email2, line1, town, postcode, tags, custom,
        merged_into
      FROM customers ${of('id')}`,
      values,
    ),
    sites: await tx.rows<{
      customerId: string
      name: string
      line1: string
      town: string
      postcode: string
      custom: Record<string, unknown>
    }>(
      `SELECT customer_id, name, line1, town, postcode, custom FROM sites ${of('customer_id')}`,
      values,
    ),
    contacts: await tx.rows<{
      customerId: string
      name: string
      phone: string
      phone2: string
      email: string
    }>(
      `SELECT customer_id, name, phone, phone2, email
      FROM contacts ${of('customer_id')} ${ids ? 'AND' : 'WHERE'} NOT removed`,
      values,
    ),
    equipment: await tx.rows<{
      customerId: string
      serial: string
      make: string
      category: string
    }>(
      `SELECT s.customer_id, e.serial, e.make, e.category
      FROM equipment e
      JOIN sites s ON s.id = e.site_id ${of('s.customer_id')} ${ids ? 'AND' : 'WHERE'} NOT e.removed`,
      values,
    ),
  }
}

export const insertFile = (
  tx: Tx,
  f: {
    id: string
    customerId: string | null
    callId: string | null
    name: string
    mime: string
    bytes: Buffer
    by: string | null
    at: number
  },
) =>
  tx.run(
    `INSERT INTO attachments (id, customer_id, call_id, name, mime, bytes, added_by, added_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
    [f.id, f.customerId, f.callId, f.name, f.mime, f.bytes, f.by, sqlInstant(f.at)],
  )
export const fileById = (tx: Tx, id: string) =>
  tx.row<{ name: string; mime: string; bytes: Buffer }>(
    'SELECT name, mime, bytes FROM attachments WHERE id = ?',
    [id],
  )
export interface FileRow {
  id: string
  of: string
  name: string
  mime: string
  at: string
}
export const filesIn = (column: 'customer_id' | 'call_id', ids: string[]): ListIn => ({
  columns: `id, ${column} AS \`of\`, name, mime, added_at AS at`,
  from: `attachments WHERE ${column} IN (${placeholders(ids)})`,
  values: ids,
  order: 'added_at',
  limit: 400,
  instants: ['at'],
})
export const filesOf = (tx: Tx, column: 'customer_id' | 'call_id', ids: string[]) =>
  listOf<FileRow>(tx, filesIn(column, ids))
export const filesOfCallTo = (tx: Tx, callId: string, customerId: string) =>
  tx.run('UPDATE attachments SET customer_id = ? WHERE call_id = ? AND customer_id IS NULL', [
    customerId,
    callId,
  ])
export const sayApart = (tx: Tx, a: string, b: string, by: string, at: number) =>
  tx.run('INSERT IGNORE INTO not_duplicates VALUES (?, ?, ?, ?)', [
    a < b ? a : b,
    a < b ? b : a,
    by,
    sqlInstant(at),
  ])
export const apartPairs = (tx: Tx) =>
  tx.rows<{ firstId: string; secondId: string }>(
    'SELECT first_id, second_id FROM not_duplicates LIMIT 20000',
  )
export const countsOf = (tx: Tx, ids: string[]) =>
  tx.rows<{ id: string; sites: number; work: number }>(
    `SELECT c.id, (SELECT COUNT(*) FROM sites s WHERE s.customer_id = c.id) AS sites,
      (SELECT COUNT(*) FROM work_orders w WHERE w.customer_id = c.id) AS work
    FROM customers c
    WHERE c.id IN (${placeholders(ids)})`,
    ids,
  )
export interface PaperRow {
  id: string
  number: string
  on: string
  total: number
  open: number
  paid: number
  sent: boolean
  state: StoredInvoiceState
}
export const papersIn = (customerId: string): ListIn => ({
  columns:
    'id, number, issue_on AS `on`, total_minor AS total, open_minor AS open, paid_minor AS paid, sent, state',
  from: 'invoices WHERE customer_id = ?',
  values: [customerId],
  order: 'open_minor > 0 DESC, issue_on DESC',
  limit: 40,
  booleans: ['sent'],
})
/** Contacts that a merge made of what had no other place. */
export const removeContactsOf = (tx: Tx, importId: string) =>
  tx.run('UPDATE contacts SET removed = TRUE, version = version + 1 WHERE import_id = ?', [
    importId,
  ])

export const customersForExport = (tx: Tx) =>
  tx.each<CustomerRow>(
    `SELECT ${COLUMNS}
    FROM customers c
    WHERE c.merged_into IS NULL AND c.erased_at IS NULL
    ORDER BY c.name, c.id`,
  )
interface SiteForExport {
  customer: string
  name: string
  line1: string
  town: string
  postcode: string
  accessNote: string
  custom: Record<string, string>
}
export const sitesForExport = (tx: Tx) =>
  tx.each<SiteForExport>(
    `SELECT c.name AS customer, s.name, s.line1, s.town, s.postcode, s.access_note, s.custom
    FROM sites s
    JOIN customers c ON c.id = s.customer_id
    WHERE c.merged_into IS NULL AND c.erased_at IS NULL
    ORDER BY c.name, s.id`,
  )
export const contactsForExport = (tx: Tx) =>
  tx.each<ContactRow & { customer: string }>(
    `SELECT k.id, k.customer_id, k.site_id, k.name, k.role, k.phone, k.phone2, k.email, k.version,
      c.name AS customer
    FROM contacts k
    JOIN customers c ON c.id = k.customer_id
    WHERE NOT k.removed AND c.merged_into IS NULL
    ORDER BY c.name, k.id`,
  )
