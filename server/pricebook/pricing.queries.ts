// SQL of how prices are made and changed: rules, markups, batches, history.
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import type { TimeFactor } from '../../core/pricebook/timeFactor'
import type { MarkupRule } from '../../core/pricebook/markupTiers'
import type { PriceSet } from '../../core/pricebook/reprice'

/** Prices of many entries in a few statements; `on` is the day from which they hold. */
export async function setPrices(
  tx: Tx,
  rows: readonly (PriceSet & { id: string })[],
  on: string,
): Promise<void> {
  for (let i = 0; i < rows.length; i += 1000) {
    await tx.run(
      `UPDATE price_entries e
      JOIN JSON_TABLE(?, '$[*]' COLUMNS (id CHAR(36) PATH '$.id', cost DECIMAL(14,4) PATH '$.cost',
        price DECIMAL(14,4) PATH '$.price', further_price DECIMAL(14,4) PATH '$.furtherPrice' NULL
        ON EMPTY, pricing VARCHAR(8) PATH '$.pricing')) j ON e.id = CAST(j.id AS UUID)
      SET e.cost = j.cost, e.price = j.price, e.further_price = j.further_price,
        e.pricing = j.pricing, e.priced_on = ?, e.version = e.version + 1`,
      [JSON.stringify(rows.slice(i, i + 1000)), on],
    )
  }
}
export const markupRules = async (tx: Tx): Promise<(MarkupRule & { id: string })[]> =>
  tx.rows<MarkupRule & { id: string }>(
    'SELECT id, scope, name, tiers FROM markup_rules ORDER BY scope, name LIMIT 500',
  )
export async function putMarkupRules(
  tx: Tx,
  rules: (MarkupRule & { id: string })[],
): Promise<void> {
  await tx.run('DELETE FROM markup_rules')
  if (rules.length)
    await tx.many(
      'INSERT INTO markup_rules (id, scope, name, tiers) VALUES ?',
      rules.map((r) => [r.id, r.scope, r.name, JSON.stringify(r.tiers)]),
    )
}
export interface PricingRow {
  sundriesRate: string
  minimum: string
  rounding: { kind: 'none' | 'whole' | 'ending'; ending?: number }
  year?: Record<string, string> | undefined
  times?: TimeFactor[] | undefined
}
export const pricingOf = async (tx: Tx, lock = false): Promise<PricingRow> =>
  (await tx.row<{ pricing: PricingRow }>(
    `SELECT pricing FROM company WHERE id = 1${lock ? ' FOR UPDATE' : ''}`,
  ))!.pricing
export const putPricing = (tx: Tx, p: PricingRow) =>
  tx.run('UPDATE company SET pricing = ?, version = version + 1', [JSON.stringify(p)])
/** The rules as they were before a change of them. */
export interface RulesBefore {
  pricing: PricingRow
  markups: (MarkupRule & { id: string })[]
}
export const setRulesBefore = (tx: Tx, batchId: string, before: RulesBefore) =>
  tx.run('UPDATE price_batches SET rules_before = ? WHERE id = ?', [
    JSON.stringify(before),
    batchId,
  ])
export async function rulesBefore(tx: Tx, batchId: string): Promise<RulesBefore | null> {
  const row = await tx.row<{ before: RulesBefore | null }>(
    'SELECT rules_before AS `before` FROM price_batches WHERE id = ?',
    [batchId],
  )
  return row?.before ?? null
}
/** Whether the rules were changed again after a change of them. */
export const rulesChangedSince = async (tx: Tx, batchId: string) =>
  (await tx.row(
    `SELECT 1 AS yes
    FROM price_batches b
    JOIN price_batches later ON later.rules_before IS NOT NULL
      AND later.state <> "undone" AND (later.made_at, later.id) > (b.made_at, b.id)
    WHERE b.id = ? LIMIT 1`,
    [batchId],
  )) !== null
export interface BatchRow {
  id: string
  title: string
  holdsFrom: string
  state: 'waiting' | 'applied' | 'undone'
  madeBy: string | null
  madeAt: string
  entries: number
}
const BATCH = `SELECT b.id, b.title, b.holds_from, b.state, p.name AS madeBy, b.made_at,
    (SELECT COUNT(*) FROM price_history h WHERE h.batch_id = b.id) AS entries
  FROM price_batches b
  LEFT JOIN people p ON p.id = b.made_by`
export const batchById = (tx: Tx, id: string) =>
  tx.row<BatchRow>(`${BATCH} WHERE b.id = ? FOR UPDATE`, [id])
export const batches = (tx: Tx) =>
  tx.rows<BatchRow>(`${BATCH} ORDER BY b.made_at DESC, b.id DESC LIMIT 50`)
export const dueBatches = (tx: Tx, today: string) =>
  tx.rows<{ id: string }>(
    `SELECT id
    FROM price_batches
    WHERE state = "waiting" AND holds_from <= ?
    ORDER BY holds_from, made_at LIMIT 20`,
    [today],
  )
export const insertBatch = (
  tx: Tx,
  b: {
    id: string
    title: string
    holdsFrom: string
    state: BatchRow['state']
    by: string | null
    at: number
  },
) =>
  tx.run(
    'INSERT INTO price_batches (id, title, holds_from, state, made_by, made_at) VALUES (?, ?, ?, ?, ?, ?)',
    [b.id, b.title.slice(0, 160), b.holdsFrom, b.state, b.by, sqlInstant(b.at)],
  )
export const setBatchState = (tx: Tx, id: string, state: BatchRow['state']) =>
  tx.run('UPDATE price_batches SET state = ? WHERE id = ?', [state, id])
export const insertHistory = (
  tx: Tx,
  batchId: string,
  rows: { entryId: string; was: PriceSet; became: PriceSet; follows: boolean }[],
) =>
  tx.many(
    'INSERT INTO price_history (batch_id, entry_id, was, became, follows) VALUES ?',
    rows.map((r) => [
      batchId,
      r.entryId,
      JSON.stringify(r.was),
      JSON.stringify(r.became),
      r.follows,
    ]),
  )
export const historyOfBatch = async (tx: Tx, batchId: string) =>
  tx.rows<{ entryId: string; was: PriceSet; became: PriceSet }>(
    'SELECT entry_id, was, became FROM price_history WHERE batch_id = ? ORDER BY id',
    [batchId],
  )
export const historyOfEntry = (tx: Tx, entryId: string) =>
  tx.rows<{
    title: string
    state: BatchRow['state']
    holdsFrom: string
    madeAt: string
    madeBy: string | null
    was: PriceSet
    became: PriceSet
  }>(
    `SELECT b.title, b.state, b.holds_from, b.made_at, p.name AS madeBy, h.was, h.became
    FROM price_history h
    JOIN price_batches b ON b.id = h.batch_id
    LEFT JOIN people p ON p.id = b.made_by
    WHERE h.entry_id = ?
    ORDER BY h.id DESC LIMIT 50`,
    [entryId],
  )
export async function pricesNow(tx: Tx, ids: readonly string[]): Promise<Map<string, PriceSet>> {
  const now = new Map<string, PriceSet>()
  for (let i = 0; i < ids.length; i += 1000) {
    const some = ids.slice(i, i + 1000)
    for (const { id, ...p } of await tx.rows<PriceSet & { id: string }>(
      `SELECT id, cost, price, further_price, pricing
      FROM price_entries
      WHERE id IN (${placeholders(some)}) FOR UPDATE`,
      some,
    ))
      now.set(id, p)
  }
  return now
}
