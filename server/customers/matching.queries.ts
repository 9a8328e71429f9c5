// SQL of who is alike: what is known of everybody, pairs that somebody said are two.
import { placeholders, sqlInstant, type Tx } from '../db/pool'

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
export const sayApart = (tx: Tx, [a, b]: [string, string], by: string, at: number) =>
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
