// SQL of sites, contacts and equipment.
import { placeholders, type Tx, type Value } from '../db/pool'
import { listOf, listRows, type ListIn } from '../db/queries'
import type { Finder } from '../db/search.queries'

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
const SITE_WORDS: Finder[] = [
  { id: 'o.id', from: 'sites o', words: 'o.search' },
  { id: 'o.id', from: 'customers k JOIN sites o ON o.customer_id = k.id', words: 'k.search' },
]
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
/** Contacts that a merge made of what had no other place. */
export const removeContactsOf = (tx: Tx, importId: string) =>
  tx.run('UPDATE contacts SET removed = TRUE, version = version + 1 WHERE import_id = ?', [
    importId,
  ])
