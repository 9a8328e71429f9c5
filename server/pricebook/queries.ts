// SQL of the price book.
import { marks, type Tx, type Value } from '../db/pool'
import { listRows } from '../db/queries'
import { json } from '../settings/queries'

export interface EntryRow {
  id: string, code: string, kind: 'task' | 'part' | 'labour' | 'charge', category: string, name: string, synonyms: string, unit: string, price: string, furtherPrice: string | null, cost: string,
  taxClass: string, seconds: number, furtherSeconds: number, skills: string[], pinned: boolean, parts: string
}
const COLUMNS = `e.id, e.code, e.kind, e.category, e.name, e.synonyms, e.unit, e.price, e.further_price AS furtherPrice, e.cost, e.tax_class AS taxClass, e.seconds_first AS seconds, e.seconds_further AS furtherSeconds,
  e.skills, e.pinned, COALESCE((SELECT GROUP_CONCAT(p.name SEPARATOR ', ') FROM price_entry_parts ep JOIN price_entries p ON p.id = ep.part_id WHERE ep.entry_id = e.id), '') AS parts`
const fix = (e: EntryRow): EntryRow => ({ ...e, skills: json<string[]>(e.skills), pinned: Boolean(e.pinned) })

export const entriesById = async (tx: Tx, ids: string[]) => (await tx.rows<EntryRow>(`SELECT ${COLUMNS} FROM price_entries e WHERE e.id IN (${marks(ids)})`, ids)).map(fix)
/** The whole book, for the search index; bounded. */
export const wholeBook = async (tx: Tx) => (await tx.rows<EntryRow>(`SELECT ${COLUMNS} FROM price_entries e WHERE NOT e.retired ORDER BY e.kind, e.code LIMIT 20000`)).map(fix)
export const bookStamp = async (tx: Tx) => (await tx.row<{ stamp: string }>('SELECT CONCAT(COUNT(*), ":", COALESCE(SUM(version), 0)) AS stamp FROM price_entries'))!.stamp
export const standardLabour = async (tx: Tx) => {
  const row = await tx.row<EntryRow>(`SELECT ${COLUMNS} FROM price_entries e WHERE e.kind = 'labour' AND NOT e.retired ORDER BY e.pinned DESC, e.code LIMIT 1`)
  return row && fix(row)
}
export async function entryPage(tx: Tx, f: { q: string, kind?: string, pinned: boolean, limit: number, after: [string, string] | null, descending: boolean, sort: string }) {
  const where = ['NOT e.retired']
  const values: Value[] = []
  for (const word of f.q.split(' ').filter(Boolean)) {
    where.push('CONCAT(e.code, " ", e.name, " ", e.synonyms, " ", e.category) LIKE ?')
    values.push(`%${word}%`)
  }
  if (f.kind) {
    where.push('e.kind = ?')
    values.push(f.kind)
  }
  if (f.pinned) where.push('e.pinned')
  const { rows, total } = await listRows<EntryRow>(tx, { select: COLUMNS, from: 'price_entries e', where, values, by: f.sort === 'name' ? 'e.name' : 'e.code', id: 'e.id', descending: f.descending, limit: f.limit, after: f.after })
  return { rows: rows.map(r => ({ ...fix(r), key: r.key })), total }
}
