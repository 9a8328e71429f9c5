// SQL of merging two customers, and of taking a person's data out.
import { sqlInstant, type Tx } from '../db/pool'
import type { ListIn } from '../db/queries'
import { erasures } from '../subjects'

export const idsIn = async (tx: Tx, table: string, customerId: string) =>
  (
    await tx.rows<{ id: string }>(
      `SELECT id FROM ${table} WHERE customer_id = ? ORDER BY id FOR UPDATE`,
      [customerId],
    )
  ).map((r) => r.id)
export const countIn = async (tx: Tx, table: string, customerId: string) =>
  (await tx.row<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table} WHERE customer_id = ?`, [
    customerId,
  ]))!.n
export async function moveRows(
  tx: Tx,
  table: string,
  ids: string[],
  { from, to }: { from: string; to: string },
): Promise<void> {
  for (let i = 0; i < ids.length; i += 500) {
    const some = ids.slice(i, i + 500)
    await tx.run(
      `UPDATE ${table}
      SET customer_id = ?
      WHERE customer_id = ? AND id IN (${some.map(() => '?').join(', ')})`,
      [to, from, ...some],
    )
  }
}
/** What a customer has in the accounts that are kept by customer. */
export const ledgerBalances = (tx: Tx, customerId: string) =>
  tx.rows<{ account: 'receivable' | 'deposits'; sum: number }>(
    `SELECT account, CAST(SUM(amount_minor) AS SIGNED) AS sum
    FROM ledger_postings
    WHERE customer_id = ? AND account IN ('receivable', 'deposits')
    GROUP BY account
    HAVING SUM(amount_minor) <> 0`,
    [customerId],
  )
export const openOfInvoices = async (tx: Tx, ids: string[]) =>
  ids.length
    ? (await tx.row<{ sum: number }>(
        `SELECT CAST(COALESCE(SUM(open_minor), 0) AS SIGNED) AS sum
        FROM invoices
        WHERE id IN (${ids.map(() => '?').join(', ')})`,
        ids,
      ))!.sum
    : 0
export const unappliedOfPayments = async (tx: Tx, ids: string[]) =>
  ids.length
    ? (await tx.row<{ sum: number }>(
        `SELECT CAST((SELECT COALESCE(SUM(amount_minor), 0) FROM payments WHERE bounced_on IS NULL
          AND id IN (${ids.map(() => '?').join(', ')})) - (SELECT COALESCE(SUM(amount_minor), 0)
          FROM allocations WHERE payment_id IN (${ids.map(() => '?').join(', ')})) AS SIGNED) AS sum`,
        [...ids, ...ids],
      ))!.sum
    : 0
export interface MergeRow {
  id: string
  keptId: string
  mergedId: string
  /** what was moved, by table */
  moved: Partial<Record<string, string[]>>
  before: { kept: Record<string, unknown>; merged: Record<string, unknown> }
  mergedAt: string
  undoneAt: string | null
}
export const insertMerge = (
  tx: Tx,
  m: Omit<MergeRow, 'mergedAt' | 'undoneAt'> & { by: string; at: number },
) =>
  tx.run(
    `INSERT INTO merges (id, kept_id, merged_id, moved, before_merge, merged_by, merged_at)
    VALUES (?, ?, ?, ?, ?, ?, ?)`,
    [
      m.id,
      m.keptId,
      m.mergedId,
      JSON.stringify(m.moved),
      JSON.stringify(m.before),
      m.by,
      sqlInstant(m.at),
    ],
  )
export async function mergeById(tx: Tx, id: string): Promise<MergeRow | null> {
  const r = await tx.row<MergeRow>(
    `SELECT id, kept_id, merged_id, moved, before_merge AS \`before\`, merged_at, undone_at
    FROM merges
    WHERE id = ? FOR UPDATE`,
    [id],
  )
  return r
}
export const markUndone = (tx: Tx, id: string, at: number) =>
  tx.run('UPDATE merges SET undone_at = ? WHERE id = ?', [sqlInstant(at), id])
export interface MergeShort {
  id: string
  mergedId: string
  name: string
  at: string
}
export const mergesIn = (customerId: string): ListIn => ({
  columns: 'm.id, m.merged_id, c.name, m.merged_at AS at',
  from: 'merges m JOIN customers c ON c.id = m.merged_id WHERE m.kept_id = ? AND m.undone_at IS NULL',
  values: [customerId],
  order: 'm.merged_at DESC',
  limit: 20,
  instants: ['at'],
})
export const callsOf = (tx: Tx, customerId: string) =>
  tx.rows<{ id: string; summary: string; draft: unknown; reason: string; at: string }>(
    `SELECT id, summary, draft, reason, created_at AS at
    FROM calls
    WHERE JSON_VALUE(draft, "$.customerId") = ?
      OR work_order_id IN (SELECT id FROM work_orders WHERE customer_id = ?) LIMIT 500`,
    [customerId, customerId],
  )
/** Takes a person's words out of everything that may go: each subject says where they stand in it. */
export async function takeOutPerson(tx: Tx, customerId: string): Promise<void> {
  for (const sql of erasures) {
    const places = sql.split('?').length - 1
    await tx.run(
      sql,
      Array.from({ length: places }, () => customerId),
    )
  }
}
