// SQL of price lists that are taken in.
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import type { FullEntry } from './queries'

export interface ImportRow {
  id: string
  fileName: string
  supplier: string
  columns: (string | null)[]
  state: 'waiting' | 'taken' | 'undone'
  counts: Record<string, number> | null
  madeBy: string
  madeAt: string
}
const IMPORT = `SELECT i.id, i.file_name, i.supplier, i.columns_as AS \`columns\`, i.state,
    i.counts, p.name AS madeBy, i.made_at
  FROM price_imports i
  JOIN people p ON p.id = i.made_by`
export async function priceImportById(tx: Tx, id: string, lock = false): Promise<ImportRow | null> {
  const r = await tx.row<ImportRow>(`${IMPORT} WHERE i.id = ?${lock ? ' FOR UPDATE' : ''}`, [id])
  return r
}
export const priceImports = async (tx: Tx) =>
  tx.rows<ImportRow>(
    `${IMPORT} WHERE i.state <> 'waiting' ORDER BY i.made_at DESC, i.id DESC LIMIT 30`,
  )
export const putImport = (
  tx: Tx,
  i: {
    id: string
    fileName: string
    supplier: string
    columns: (string | null)[]
    by: string
    at: number
  },
) =>
  tx.run(
    `INSERT INTO price_imports (id, file_name, supplier, columns_as, made_by, made_at)
    VALUES (?, ?, ?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE file_name = VALUES(file_name), supplier = VALUES(supplier),
      columns_as = VALUES(columns_as)`,
    [i.id, i.fileName, i.supplier, JSON.stringify(i.columns), i.by, sqlInstant(i.at)],
  )
/** Rows as they came; the same piece sent again stands where it stood. */
export const stageRows = (
  tx: Tx,
  importId: string,
  rows: readonly { row: number; cells: readonly string[] }[],
) =>
  tx.many(
    `INSERT INTO price_import_rows (import_id, row_no, cells)
    VALUES ?
    ON DUPLICATE KEY UPDATE cells = VALUES(cells)`,
    rows.map((r) => [importId, r.row, JSON.stringify(r.cells)]),
  )
export const stagedRows = (tx: Tx, importId: string) =>
  tx.rows<{ row: number; cells: string[] }>(
    'SELECT row_no AS `row`, cells FROM price_import_rows WHERE import_id = ? ORDER BY row_no LIMIT 50001',
    [importId],
  )
/** Lists that were looked at and left lying are of no use after a day. */
export async function sweepStaged(tx: Tx, before: number, except: string): Promise<void> {
  await tx.run(`DELETE FROM price_imports WHERE state = 'waiting' AND made_at < ? AND id <> ?`, [
    sqlInstant(before),
    except,
  ])
}
export const unstage = (tx: Tx, importId: string) =>
  tx.run('DELETE FROM price_import_rows WHERE import_id = ?', [importId])
export const setImportState = (
  tx: Tx,
  id: string,
  state: ImportRow['state'],
  counts: Record<string, number> | null,
) =>
  tx.run('UPDATE price_imports SET state = ?, counts = COALESCE(?, counts) WHERE id = ?', [
    state,
    counts && JSON.stringify(counts),
    id,
  ])
/** What each entry was before (nothing, where the list made it), and the version that it has after. */
export const keepBefore = (
  tx: Tx,
  importId: string,
  rows: readonly { entryId: string; was: FullEntryBefore | null; version: number }[],
) =>
  tx.many(
    'INSERT INTO price_import_entries (import_id, entry_id, was, became_version) VALUES ?',
    rows.map((r) => [importId, r.entryId, r.was && JSON.stringify(r.was), r.version]),
  )
export interface FullEntryBefore {
  entry: FullEntry
  inside: { partId: string; quantity: string }[]
}
export const before = (tx: Tx, importId: string) =>
  tx.rows<{ entryId: string; was: FullEntryBefore | null; version: number; now: number }>(
    `SELECT i.entry_id, i.was, i.became_version AS version, e.version AS now
    FROM price_import_entries i
    JOIN price_entries e ON e.id = i.entry_id
    WHERE i.import_id = ?`,
    [importId],
  )
/** Which of some entries stand on a paper, inside another entry or in an act that changed prices: those are never deleted. */
export async function usedEntries(tx: Tx, ids: readonly string[]): Promise<Set<string>> {
  const used = new Set<string>()
  for (let i = 0; i < ids.length; i += 500) {
    const some = ids.slice(i, i + 500)
    const m = placeholders(some)
    for (const r of await tx.rows<{ id: string }>(
      `SELECT entry_id AS id
      FROM work_lines
      WHERE entry_id IN (${m})
      UNION
      SELECT entry_id
      FROM quote_lines
      WHERE entry_id IN (${m})
      UNION
      SELECT part_id
      FROM price_entry_parts
      WHERE part_id IN (${m})
      UNION
      SELECT labour_id
      FROM price_entries
      WHERE labour_id IN (${m})
      UNION
      SELECT entry_id
      FROM price_pictures
      WHERE entry_id IN (${m})
      UNION
      SELECT entry_id
      FROM price_history
      WHERE entry_id IN (${m})`,
      [...some, ...some, ...some, ...some, ...some, ...some],
    ))
      used.add(r.id)
  }
  return used
}
export async function deleteEntries(tx: Tx, ids: readonly string[]): Promise<void> {
  for (let i = 0; i < ids.length; i += 500) {
    const some = ids.slice(i, i + 500)
    for (const table of ['price_entry_parts', 'price_pins', 'price_import_entries'])
      await tx.run(`DELETE FROM ${table} WHERE entry_id IN (${placeholders(some)})`, some)
    await tx.run(`DELETE FROM price_entries WHERE id IN (${placeholders(some)})`, some)
  }
}
export async function versionsOf(tx: Tx, ids: readonly string[]): Promise<Map<string, number>> {
  const found = new Map<string, number>()
  for (let i = 0; i < ids.length; i += 1000)
    for (const r of await tx.rows<{ id: string; version: number }>(
      `SELECT id, version FROM price_entries WHERE id IN (${placeholders(ids.slice(i, i + 1000))})`,
      ids.slice(i, i + 1000),
    ))
      found.set(r.id, r.version)
  return found
}
export const savepoint = (tx: Tx) => tx.run('SAVEPOINT looked')
export const backToSavepoint = (tx: Tx) => tx.run('ROLLBACK TO SAVEPOINT looked')
/** What each column of a source meant the last time. A source is a supplier, or the headings themselves. */
export const meaningOf = async (tx: Tx, source: string) => {
  const row = await tx.row<{ columns: Record<string, string | null> }>(
    'SELECT columns_as AS `columns` FROM column_meanings WHERE source = ?',
    [source],
  )
  return row?.columns ?? null
}
export const keepMeaning = (tx: Tx, source: string, columns: Record<string, string | null>) =>
  tx.run(
    `INSERT INTO column_meanings (source, columns_as)
    VALUES (?, ?)
    ON DUPLICATE KEY UPDATE columns_as = VALUES(columns_as)`,
    [source, JSON.stringify(columns)],
  )
