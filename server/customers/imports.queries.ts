// SQL of imports and of taking one back.
import { placeholders, sqlInstant, type Tx } from '../db/pool'

/** `brought`: what was open in the books before. */
export type ImportOf = 'customers' | 'brought'
export const importById = (tx: Tx, id: string) =>
  tx.row<{ what: ImportOf; fileName: string; undoneAt: string | null }>(
    'SELECT what, file_name, undone_at FROM imports WHERE id = ? FOR UPDATE',
    [id],
  )
export const putImport = (
  tx: Tx,
  i: {
    id: string
    what: ImportOf
    fileName: string
    added: number
    skipped: number
    by: string
    at: number
  },
) =>
  tx.run(
    `INSERT INTO imports (id, what, file_name, added, skipped, imported_by, imported_at)
    VALUES (?, ?, ?, ?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE added = added + VALUES(added), skipped = skipped + VALUES(skipped)`,
    [i.id, i.what, i.fileName, i.added, i.skipped, i.by, sqlInstant(i.at)],
  )
export const listOfImports = (tx: Tx, what: ImportOf) =>
  tx.rows<{
    id: string
    fileName: string
    added: number
    skipped: number
    by: string
    at: string
    undoneAt: string | null
  }>(
    `SELECT i.id, i.file_name, i.added, i.skipped, p.name AS \`by\`, i.imported_at AS at,
      i.undone_at
    FROM imports i
    JOIN people p ON p.id = i.imported_by
    WHERE i.what = ?
    ORDER BY i.imported_at DESC LIMIT 50`,
    [what],
  )
export const countImport = async (tx: Tx, id: string) =>
  (await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM customers WHERE import_id = ?', [id]))!.n
/** Customers of an import that nobody touched since: no work, papers, money, notes, agreements, equipment, merges; the row as it came. */
export async function removeImported(tx: Tx, importId: string, now: number): Promise<string[]> {
  const free = [
    'work_orders w',
    'invoices w',
    'payments w',
    'messages w',
    'collection_notes w',
    'agreements w',
    'attachments w',
  ]
    .map((t) => `NOT EXISTS (SELECT 1 FROM ${t} WHERE w.customer_id = c.id)`)
    .join(' AND ')
  const rows = await tx.rows<{ id: string }>(
    `SELECT c.id
    FROM customers c
    WHERE c.import_id = ? AND c.version = 1
      AND ${free} AND NOT EXISTS (SELECT 1 FROM equipment e JOIN sites s ON s.id = e.site_id WHERE
      s.customer_id = c.id) AND NOT EXISTS
      (SELECT 1 FROM merges m WHERE m.kept_id = c.id OR m.merged_id = c.id)
      AND NOT EXISTS (SELECT 1 FROM sites s WHERE s.customer_id = c.id AND (s.import_id IS NULL OR
      s.version > 1)) AND NOT EXISTS (SELECT 1 FROM contacts k WHERE k.customer_id = c.id AND
      (k.import_id IS NULL OR k.version > 1)) FOR UPDATE`,
    [importId],
  )
  const ids = rows.map((r) => r.id)
  for (let i = 0; i < ids.length; i += 1000) {
    const some = ids.slice(i, i + 1000)
    for (const table of ['contacts', 'sites'])
      await tx.run(`DELETE FROM ${table} WHERE customer_id IN (${placeholders(some)})`, some)
    await tx.run(`DELETE FROM customers WHERE id IN (${placeholders(some)})`, some)
  }
  // What was added to customers who were there before.
  await tx.run(
    `DELETE s
    FROM sites s
    WHERE s.import_id = ? AND s.version = 1
      AND NOT EXISTS (SELECT 1 FROM work_orders w WHERE w.site_id = s.id)
      AND NOT EXISTS (SELECT 1 FROM equipment e WHERE e.site_id = s.id)
      AND NOT EXISTS (SELECT 1 FROM agreements a WHERE a.site_id = s.id)
      AND NOT EXISTS (SELECT 1 FROM contacts k WHERE k.site_id = s.id)
      AND NOT EXISTS (SELECT 1 FROM customers c WHERE c.id = s.customer_id AND c.import_id =
      s.import_id)`,
    [importId],
  )
  await tx.run(
    `DELETE k
    FROM contacts k
    WHERE k.import_id = ? AND k.version = 1 AND NOT EXISTS
      (SELECT 1 FROM customers c WHERE c.id = k.customer_id AND c.import_id = k.import_id)`,
    [importId],
  )
  await tx.run('UPDATE imports SET undone_at = ? WHERE id = ?', [sqlInstant(now), importId])
  return ids
}
/** What the pieces of a dry run learned, after the last that is known. */
export const looksSince = <T>(tx: Tx, importId: string, seq: number) =>
  tx.rows<{ seq: number; learned: T }>(
    'SELECT seq, learned FROM import_looks WHERE import_id = ? AND seq > ? ORDER BY seq',
    [importId, seq],
  )
export async function keepLooks(
  tx: Tx,
  importId: string,
  learned: readonly object[],
  now: number,
): Promise<void> {
  if (learned.length)
    await tx.many(
      'INSERT INTO import_looks (import_id, learned, looked_at) VALUES ?',
      learned.map((l) => [importId, JSON.stringify(l), sqlInstant(now)]),
    )
}
/** By the wall's clock: they are of use while somebody looks at a file. */
export const sweepLooks = (tx: Tx, before: string) =>
  tx.run('DELETE FROM import_looks WHERE looked_at < ?', [before])
