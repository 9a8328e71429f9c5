// SQL of what entries are called, and of the names that they share: categories, units, suppliers.
import type { EntryKind } from '../../core/pricebook/kinds'
import { placeholders, type Tx } from '../db/pool'

export const categories = (tx: Tx) =>
  tx.rows<{ name: string; kind: string; entries: number }>(
    `SELECT category AS name, kind, COUNT(*) AS entries
    FROM price_entries
    WHERE NOT retired
    GROUP BY category, kind
    ORDER BY category LIMIT 2000`,
  )
/** Units that the firm sells by, its own among them. */
export const units = async (tx: Tx) =>
  (
    await tx.rows<{ unit: string }>(
      'SELECT DISTINCT unit FROM price_entries ORDER BY unit LIMIT 200',
    )
  ).map((r) => r.unit)
export const suppliers = async (tx: Tx) =>
  (
    await tx.rows<{ name: string }>(
      'SELECT DISTINCT supplier AS name FROM price_entries WHERE supplier <> "" ORDER BY supplier LIMIT 500',
    )
  ).map((r) => r.name)
/** Entries that came from suppliers, by the suppliers' part numbers. */
export const bySupplierPart = (tx: Tx, partNumbers: string[]) =>
  tx.rows<{
    id: string
    code: string
    supplier: string
    partNumber: string
    cost: string
    price: string
    pricing: 'rule' | 'fixed'
    taxClass: string
  }>(
    `SELECT id, code, supplier, part_number, cost, price, pricing, tax_class
    FROM price_entries
    WHERE part_number IN (${placeholders(partNumbers)})
      AND supplier <> '' AND NOT retired`,
    partNumbers,
  )
/** What is on sale, by name, with when it was sold last. */
export const namesOf = (tx: Tx) =>
  tx.rows<{
    id: string
    code: string
    name: string
    kind: EntryKind
    category: string
    price: string
    last: string | null
  }>(
    `SELECT e.id, e.code, e.name, e.kind, e.category, e.price, s.last
    FROM price_entries e
    LEFT JOIN (SELECT l.entry_id, DATE(MAX(w.created_at)) AS last FROM work_lines l JOIN work_orders
      w ON w.id = l.work_order_id WHERE NOT l.removed AND l.done GROUP BY l.entry_id) s ON
      s.entry_id = e.id
    WHERE NOT e.retired
    ORDER BY e.code LIMIT 50000`,
  )
/** What customers are told of entries. */
export async function descriptionsOf(tx: Tx, ids: readonly string[]): Promise<Map<string, string>> {
  const found = new Map<string, string>()
  for (let i = 0; i < ids.length; i += 1000)
    for (const r of await tx.rows<{ id: string; description: string }>(
      `SELECT id, description
      FROM price_entries
      WHERE description <> '' AND id IN (${placeholders(ids.slice(i, i + 1000))})`,
      ids.slice(i, i + 1000),
    ))
      found.set(r.id, r.description)
  return found
}
export const namedLike = (tx: Tx, words: string[], not: string) =>
  tx.rows<{ id: string; code: string; name: string; price: string }>(
    `SELECT e.id, e.code, e.name, e.price
    FROM price_entries e
    WHERE NOT e.retired AND e.id <> ?${words.map(() => ' AND e.name LIKE ?').join('')}
    ORDER BY e.name LIMIT 5`,
    [not, ...words.map((w) => `%${w}%`)],
  )
