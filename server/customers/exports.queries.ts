// SQL of customers, sites and contacts as files.
import type { Tx } from '../db/pool'
import type { ContactRow } from './places.queries'
import type { CustomerRow } from './queries'
import { COLUMNS } from './queries'

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
