// SQL of the entries of the price book.
import { placeholders, type Tx, type Value } from '../db/pool'
import type { EntryKind } from '../../core/pricebook/kinds'
import { WITHIN } from '../../core/pricebook/inCategory'
import type { PriceSet } from '../../core/pricebook/reprice'
import { listRows, type ListIn } from '../db/queries'
import type { Finder } from '../db/search.queries'

export interface EntryRow {
  id: string
  code: string
  kind: EntryKind
  category: string
  name: string
  synonyms: string
  unit: string
  price: string
  furtherPrice: string | null
  cost: string
  taxClass: string
  seconds: number
  furtherSeconds: number
  skills: string[]
  pinned: boolean
  parts: string
  version: number
  pricing: 'rule' | 'fixed'
  labourId: string | null
  sundriesRate: string | null
  supplier: string
  partNumber: string
  pictureId: string | null
}
const PLAIN = `e.id, e.code, e.kind, e.category, e.name, e.synonyms, e.unit, e.price,
    e.further_price, e.cost, e.tax_class, e.seconds_first AS seconds,
    e.seconds_further AS furtherSeconds, e.version, e.pricing, e.labour_id, e.sundries_rate,
    e.supplier, e.part_number, e.picture_id, e.skills, e.pinned`
const COLUMNS = `${PLAIN}, COALESCE((SELECT GROUP_CONCAT(p.name SEPARATOR ', ') FROM
    price_entry_parts ep JOIN price_entries p ON p.id = ep.part_id WHERE ep.entry_id = e.id), '') AS
    parts`
/** What is on sale on a day: not retired, and within the days that it is active. */
const ACTIVE =
  'NOT e.retired AND (e.active_from IS NULL OR e.active_from <= ?) AND (e.active_to IS NULL OR e.active_to >= ?)'
export const entriesById = async (tx: Tx, ids: string[]) =>
  tx.rows<EntryRow>(
    `SELECT ${COLUMNS} FROM price_entries e WHERE e.id IN (${placeholders(ids)})`,
    ids,
  )
/** Those of them that are on sale that day. */
export const entriesOnSale = async (tx: Tx, ids: readonly string[], today: string) =>
  ids.length
    ? tx.rows<EntryRow>(
        `SELECT ${COLUMNS} FROM price_entries e WHERE e.id IN (${placeholders(ids)}) AND ${ACTIVE}`,
        [...ids, today, today],
      )
    : []
export const assembliesAmong = async (tx: Tx, ids: string[]) =>
  new Set(
    ids.length
      ? (
          await tx.rows<{ id: string }>(
            `SELECT id FROM price_entries WHERE kind = 'assembly' AND id IN (${placeholders(ids)})`,
            ids,
          )
        ).map((r) => r.id)
      : [],
  )
/** The whole book, for the search index; bounded. */
export const wholeBook = async (tx: Tx, today: string) =>
  tx.rows<EntryRow>(
    `SELECT ${COLUMNS} FROM price_entries e WHERE ${ACTIVE} ORDER BY e.kind, e.code LIMIT 50000`,
    [today, today],
  )
export const bookStamp = async (tx: Tx) =>
  (await tx.row<{ stamp: string }>(
    'SELECT CONCAT(COUNT(*), ":", COALESCE(SUM(version), 0)) AS stamp FROM price_entries',
  ))!.stamp
export const standardLabour = async (tx: Tx) => {
  return await tx.row<EntryRow>(
    `SELECT ${COLUMNS}
    FROM price_entries e
    WHERE e.kind = 'labour' AND NOT e.retired
    ORDER BY e.pinned DESC, e.code LIMIT 1`,
  )
}
const WORDS: Finder[] = [
  { id: 'o.id', from: 'price_entries o', words: 'o.code, o.name, o.synonyms, o.category' },
]
export async function entryPage(
  tx: Tx,
  f: {
    q: string
    kind?: string | undefined
    category?: string | undefined
    retired?: boolean | undefined
    pinned: boolean
    limit: number
    after: [string, string] | null
    descending: boolean
    sort: string
  },
) {
  const where = [f.retired ? 'e.retired' : 'NOT e.retired']
  const values: Value[] = []
  if (f.kind) {
    where.push('e.kind = ?')
    values.push(f.kind)
  }
  if (f.category) {
    where.push('(e.category = ? OR e.category LIKE ?)')
    values.push(f.category, `${f.category.replace(/[%_\\]/g, '\\$&')}${WITHIN}%`)
  }
  if (f.pinned) where.push('e.pinned')
  return await listRows<EntryRow>(tx, {
    select: COLUMNS,
    from: 'price_entries e',
    where,
    values,
    search: { q: f.q, finders: WORDS, text: ['e.code', 'e.name', 'e.synonyms', 'e.category'] },
    by: f.sort === 'name' ? 'e.name' : 'e.code',
    id: 'e.id',
    descending: f.descending,
    limit: f.limit,
    after: f.after,
  })
}
/** One entry with all that is kept of it. */
export interface WholeEntry extends EntryRow {
  description: string
  technicianNote: string
  incomeCode: string
  activeFrom: string | null
  activeTo: string | null
  retired: boolean
  pricedOn: string | null
}
export async function entryById(tx: Tx, id: string, lock = false): Promise<WholeEntry | null> {
  return await tx.row<WholeEntry>(
    `SELECT ${COLUMNS}, e.description, e.technician_note, e.income_code, e.active_from, e.active_to,
      e.retired, e.priced_on
    FROM price_entries e
    WHERE e.id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
}
export const entryByCode = (tx: Tx, code: string) =>
  tx.row<{ id: string }>('SELECT id FROM price_entries WHERE code = ?', [code])
export type EntryFacts = Pick<
  WholeEntry,
  | 'code'
  | 'kind'
  | 'category'
  | 'name'
  | 'description'
  | 'technicianNote'
  | 'synonyms'
  | 'unit'
  | 'taxClass'
  | 'seconds'
  | 'furtherSeconds'
  | 'skills'
  | 'pinned'
  | 'labourId'
  | 'sundriesRate'
  | 'supplier'
  | 'partNumber'
  | 'incomeCode'
  | 'activeFrom'
  | 'activeTo'
  | 'retired'
>
const factValues = (e: EntryFacts): Value[] => [
  e.code,
  e.kind,
  e.category,
  e.name,
  e.description,
  e.technicianNote,
  e.synonyms,
  e.unit,
  e.taxClass,
  e.seconds,
  e.furtherSeconds,
  JSON.stringify(e.skills),
  e.pinned,
  e.labourId,
  e.sundriesRate,
  e.supplier,
  e.partNumber,
  e.incomeCode,
  e.activeFrom,
  e.activeTo,
  e.retired,
]
export const insertEntry = (tx: Tx, id: string, e: EntryFacts, p: PriceSet) =>
  tx.run(
    `INSERT INTO price_entries (code, kind, category, name, description, technician_note, synonyms,
      unit, tax_class, seconds_first, seconds_further, skills, pinned, labour_id, sundries_rate,
      supplier, part_number, income_code, active_from, active_to, retired, id, cost, price,
      further_price, pricing)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [...factValues(e), id, p.cost, p.price, p.furtherPrice, p.pricing],
  )
export const updateEntry = async (tx: Tx, id: string, version: number, e: EntryFacts) =>
  (
    await tx.run(
      `UPDATE price_entries
      SET code = ?, kind = ?, category = ?, name = ?, description = ?, technician_note = ?,
        synonyms = ?, unit = ?, tax_class = ?, seconds_first = ?, seconds_further = ?, skills = ?,
        pinned = ?, labour_id = ?, sundries_rate = ?, supplier = ?, part_number = ?,
        income_code = ?, active_from = ?, active_to = ?, retired = ?, version = version + 1
      WHERE id = ? AND version = ?`,
      [...factValues(e), id, version],
    )
  ).affected
export type FullEntry = EntryFacts & PriceSet & { id: string; version: number }
/** Every entry with all that a list of ours says of it, the retired ones too. */
export const fullEntries = async (tx: Tx) =>
  tx.rows<FullEntry>(
    `SELECT ${PLAIN}, e.description, e.technician_note, e.income_code, e.active_from, e.active_to,
      e.retired
    FROM price_entries e
    ORDER BY e.kind, e.code LIMIT 50000`,
  )
/** Makes entries, or changes what stands in those that are there; their prices too. */
export const putEntries = (
  tx: Tx,
  rows: readonly { id: string; facts: EntryFacts; prices: PriceSet }[],
) =>
  tx.many(
    `INSERT INTO price_entries (code, kind, category, name, description, technician_note, synonyms,
      unit, tax_class, seconds_first, seconds_further, skills, pinned, labour_id, sundries_rate,
      supplier, part_number, income_code, active_from, active_to, retired, id, cost, price,
      further_price, pricing)
    VALUES ?
    ON DUPLICATE KEY UPDATE code = VALUES(code), category = VALUES(category), name = VALUES(name),
      description = VALUES(description), technician_note = VALUES(technician_note),
      synonyms = VALUES(synonyms), unit = VALUES(unit), tax_class = VALUES(tax_class),
      seconds_first = VALUES(seconds_first), seconds_further = VALUES(seconds_further),
      skills = VALUES(skills), pinned = VALUES(pinned), labour_id = VALUES(labour_id),
      sundries_rate = VALUES(sundries_rate), supplier = VALUES(supplier),
      part_number = VALUES(part_number), income_code = VALUES(income_code),
      active_from = VALUES(active_from), active_to = VALUES(active_to), retired = VALUES(retired),
      cost = VALUES(cost), price = VALUES(price), further_price = VALUES(further_price),
      pricing = VALUES(pricing), version = version + 1`,
    rows.map((r) => [
      ...factValues(r.facts),
      r.id,
      r.prices.cost,
      r.prices.price,
      r.prices.furtherPrice,
      r.prices.pricing,
    ]),
  )
/** Every entry, the retired ones too: a task may still have a retired part inside. */
export const everyEntry = async (tx: Tx) =>
  tx.rows<EntryRow & { retired: boolean }>(
    `SELECT ${PLAIN}, '' AS parts, e.retired FROM price_entries e ORDER BY e.kind, e.code LIMIT 50000`,
  )
export const labourRates = (tx: Tx) =>
  tx.rows<{ id: string; name: string; price: string }>(
    `SELECT id, name, price
    FROM price_entries
    WHERE kind = "labour" AND NOT retired
    ORDER BY pinned DESC, code LIMIT 100`,
  )
/** Entries of some kinds that are on sale, the standard one of each kind first. */
export const entriesIn = (kinds: EntryKind[]): ListIn => ({
  columns: `${PLAIN}, '' AS parts`,
  from: `price_entries e WHERE e.kind IN (${placeholders(kinds)}) AND NOT e.retired`,
  values: kinds,
  order: `e.kind = 'labour' DESC, e.kind, e.pinned DESC, e.code`,
  limit: 200,
  decimals: ['price', 'furtherPrice', 'cost', 'sundriesRate'],
  booleans: ['pinned'],
})
/** One change of prices at a time: what follows from what is worked out from the whole book. */
export const lockBook = (tx: Tx) => tx.row('SELECT id FROM company WHERE id = 1 FOR UPDATE')
export const hasEntries = async (tx: Tx): Promise<boolean> =>
  (await tx.row('SELECT 1 AS yes FROM price_entries LIMIT 1')) !== null
