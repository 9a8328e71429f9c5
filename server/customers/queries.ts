// SQL of customers, sites, contacts and equipment.
import { marks, sqlInstant, type Tx, type Value } from '../db/pool'
import { listRows } from '../db/queries'
import type { Terms } from '../../core/documents/dueDate'
import type { PriceLevel } from '../../core/pricebook/levelPrice'
import { json } from '../settings/queries'

export interface CustomerRow {
  id: string, name: string, prospect: boolean, phone: string, phone2: string, email: string, email2: string, line1: string, town: string, postcode: string, terms: Terms | null
  priceLevelId: string | null, taxExempt: boolean, certificate: string, officeNote: string, tag: string, stopWork: string, version: number
}
const COLUMNS = `c.id, c.name, c.prospect, c.phone, c.phone2, c.email, c.email2, c.line1, c.town, c.postcode, c.terms, c.price_level_id AS priceLevelId, c.tax_exempt AS taxExempt,
  c.exempt_certificate AS certificate, c.office_note AS officeNote, c.tag, c.stop_work AS stopWork, c.version`
const fix = (r: CustomerRow): CustomerRow => ({ ...r, prospect: Boolean(r.prospect), taxExempt: Boolean(r.taxExempt), terms: r.terms && json<Terms>(r.terms) })

export const customersById = async (tx: Tx, ids: string[]) => (await tx.rows<CustomerRow>(`SELECT ${COLUMNS} FROM customers c WHERE c.id IN (${marks(ids)})`, ids)).map(fix)
export const customerById = async (tx: Tx, id: string, lock = false) => {
  const row = await tx.row<CustomerRow>(`SELECT ${COLUMNS} FROM customers c WHERE c.id = ?${lock ? ' FOR UPDATE' : ''}`, [id])
  return row && fix(row)
}
export interface SiteRow { id: string, customerId: string, name: string, line1: string, town: string, postcode: string, lat: number | null, lon: number | null, accessNote: string }
const SITE = 'id, customer_id AS customerId, name, line1, town, postcode, lat, lon, access_note AS accessNote'
export const sitesOf = (tx: Tx, customerIds: string[]) => tx.rows<SiteRow>(`SELECT ${SITE} FROM sites WHERE customer_id IN (${marks(customerIds)}) ORDER BY id`, customerIds)
export const siteById = (tx: Tx, id: string) => tx.row<SiteRow>(`SELECT ${SITE} FROM sites WHERE id = ?`, [id])
export const contactsOf = (tx: Tx, customerId: string) => tx.rows<{ id: string, name: string, role: string, phone: string, email: string }>('SELECT id, name, role, phone, email FROM contacts WHERE customer_id = ? ORDER BY name', [customerId])
export const equipmentOf = (tx: Tx, customerIds: string[]) => tx.rows<{ id: string, siteId: string, customerId: string, category: string, make: string, serial: string, installedOn: string | null, warrantyUntil: string | null }>(
  `SELECT e.id, e.site_id AS siteId, s.customer_id AS customerId, e.category, e.make, e.serial, e.installed_on AS installedOn, e.warranty_until AS warrantyUntil FROM equipment e JOIN sites s ON s.id = e.site_id WHERE s.customer_id IN (${marks(customerIds)})`, customerIds)

/** Candidates in which every word, or the digits, occur in customer, site or contact. */
export async function candidates(tx: Tx, words: string[], limit: number) {
  const like = words.map(w => `%${w}%`)
  const all = (column: string) => words.map(() => `${column} LIKE ?`).join(' AND ')
  return tx.rows<{ customerId: string, siteId: string | null, why: string }>(
    `(SELECT id AS customerId, NULL AS siteId, 'customer' AS why FROM customers WHERE ${all('search')} LIMIT ${limit})
     UNION ALL (SELECT s.customer_id, s.id, 'site' FROM sites s WHERE ${all('s.search')} LIMIT ${limit})
     UNION ALL (SELECT k.customer_id, k.site_id, 'contact' FROM contacts k WHERE ${all('k.search')} LIMIT ${limit})
     UNION ALL (SELECT s.customer_id, s.id, 'both' FROM sites s JOIN customers c ON c.id = s.customer_id WHERE ${all('CONCAT(c.search, " ", s.search)')} LIMIT ${limit})`,
    [...like, ...like, ...like, ...like])
}
export const owedBy = (tx: Tx, ids: string[], today: string) => tx.rows<{ customerId: string, owed: number, oldest: string | null }>(
  `SELECT customer_id AS customerId, CAST(SUM(open_minor) AS SIGNED) AS owed, MIN(IF(open_minor > 0 AND due_on < ?, due_on, NULL)) AS oldest FROM invoices WHERE customer_id IN (${marks(ids)}) GROUP BY customer_id`, [today, ...ids])
export const openWorkOf = (tx: Tx, ids: string[]) => tx.rows<{ customerId: string, id: string, number: string, title: string, state: string }>(
  `SELECT customer_id AS customerId, id, number, title, state FROM work_orders WHERE customer_id IN (${marks(ids)}) AND state NOT IN ('closed', 'cancelled', 'billed') ORDER BY created_at DESC LIMIT 200`, ids)
export const lastVisitOf = (tx: Tx, ids: string[]) => tx.rows<{ customerId: string, on: string, title: string }>(
  `SELECT w.customer_id AS customerId, DATE(v.finished_at) AS \`on\`, w.title FROM visits v JOIN work_orders w ON w.id = v.work_order_id WHERE w.customer_id IN (${marks(ids)}) AND v.state = 'finished' ORDER BY v.finished_at DESC LIMIT 200`, ids)
export const agreementsOf = (tx: Tx, ids: string[], today: string) => tx.rows<{ customerId: string, plan: string, visitDueOn: string | null }>(
  `SELECT customer_id AS customerId, plan, visit_due_on AS visitDueOn FROM agreements WHERE customer_id IN (${marks(ids)}) AND ? BETWEEN starts_on AND ends_on`, [...ids, today])
export const levels = async (tx: Tx): Promise<(PriceLevel & { kind: string })[]> =>
  (await tx.rows<PriceLevel & { kind: string }>('SELECT id, name, kind, off FROM price_levels')).map(l => ({ ...l, off: json<PriceLevel['off']>(l.off) }))

export const insertCustomer = (tx: Tx, c: { id: string, name: string, phone: string, phone2?: string, email: string, email2: string, line1: string, town: string, postcode: string, terms?: Terms | null, levelId?: string | null, exempt?: boolean, certificate?: string, note?: string, tag?: string, stopWork?: string, source: string, prospect?: boolean, search: string, now: number }) =>
  tx.run(`INSERT INTO customers (id, name, prospect, phone, phone2, email, email2, line1, town, postcode, terms, price_level_id, tax_exempt, exempt_certificate, office_note, tag, stop_work, source, search, created_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  [c.id, c.name, c.prospect ?? false, c.phone, c.phone2 ?? '', c.email, c.email2, c.line1, c.town, c.postcode, c.terms ? JSON.stringify(c.terms) : null, c.levelId ?? null, c.exempt ?? false, c.certificate ?? '', c.note ?? '', c.tag ?? '', c.stopWork ?? '', c.source, c.search, sqlInstant(c.now)])
export const insertSite = (tx: Tx, s: { id: string, customerId: string, name: string, line1: string, town: string, postcode: string, lat: number | null, lon: number | null, accessNote: string, search: string }) =>
  tx.run('INSERT INTO sites (id, customer_id, name, line1, town, postcode, lat, lon, access_note, search) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)', [s.id, s.customerId, s.name, s.line1, s.town, s.postcode, s.lat, s.lon, s.accessNote, s.search])
/** Where the middle of a postcode or town is, from the sites already known there. */
export const middleOf = (tx: Tx, town: string, postcode: string) => tx.row<{ lat: number | null, lon: number | null }>(
  'SELECT AVG(lat) AS lat, AVG(lon) AS lon FROM sites WHERE lat IS NOT NULL AND ((postcode <> "" AND postcode = ?) OR (town <> "" AND town = ?))', [postcode, town])

const CHANGEABLE = { name: 'name', phone: 'phone', phone2: 'phone2', email: 'email', email2: 'email2', line1: 'line1', town: 'town', postcode: 'postcode', officeNote: 'office_note', tag: 'tag', stopWork: 'stop_work', search: 'search' } as const
export async function updateCustomer(tx: Tx, id: string, version: number, values: Partial<Record<keyof typeof CHANGEABLE, string>>) {
  const keys = Object.keys(values).filter((k): k is keyof typeof CHANGEABLE => k in CHANGEABLE)
  return (await tx.run(`UPDATE customers SET ${keys.map(k => `${CHANGEABLE[k]} = ?`).concat('version = version + 1').join(', ')} WHERE id = ? AND version = ?`, [...keys.map(k => values[k] as Value), id, version])).affected
}
const SORTS: Record<string, string> = { name: 'c.name', town: 'c.town' }
export async function customerPage(tx: Tx, f: { q?: string, owing?: boolean, sort: string, descending: boolean, limit: number, after: [string, string] | null, today: string }) {
  const where: string[] = []
  const values: Value[] = []
  for (const word of (f.q ?? '').split(' ').filter(Boolean)) {
    where.push('c.search LIKE ?')
    values.push(`%${word}%`)
  }
  if (f.owing) where.push('EXISTS (SELECT 1 FROM invoices i WHERE i.customer_id = c.id AND i.open_minor > 0)')
  return listRows<{ id: string, name: string, phone: string, email: string, town: string, prospect: number, tag: string, sites: number }>(tx, {
    select: 'c.id, c.name, c.phone, c.email, c.town, c.prospect, c.tag, (SELECT COUNT(*) FROM sites s WHERE s.customer_id = c.id) AS sites',
    from: 'customers c', where, values, by: SORTS[f.sort] ?? 'c.name', id: 'c.id', descending: f.descending, limit: f.limit, after: f.after,
  })
}
