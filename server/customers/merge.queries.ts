// SQL of merging two customers, and of taking a person's data out.
import { sqlInstant, type Tx } from '../db/pool'
import type { ListIn } from '../db/queries'
import { json } from '../db/json'

/** Everything that belongs to a customer and moves with a merge. Contacts, equipment and visits hang on these. */
export const MOVED = {
  sites: 'sites',
  contacts: 'contacts',
  agreements: 'care agreements',
  work_orders: 'work orders',
  quotes: 'quotes',
  invoices: 'invoices',
  payments: 'payments',
  messages: 'mails',
  collection_notes: 'collection notes',
  attachments: 'files',
} as const
export type MovedTable = keyof typeof MOVED
export const idsIn = async (tx: Tx, table: MovedTable, customerId: string) =>
  (
    await tx.rows<{ id: string }>(
      `SELECT id FROM ${table} WHERE customer_id = ? ORDER BY id FOR UPDATE`,
      [customerId],
    )
  ).map((r) => r.id)
export const countIn = async (tx: Tx, table: MovedTable, customerId: string) =>
  (await tx.row<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table} WHERE customer_id = ?`, [
    customerId,
  ]))!.n
export async function moveRows(
  tx: Tx,
  table: MovedTable,
  ids: string[],
  from: string,
  to: string,
): Promise<void> {
  for (let i = 0; i < ids.length; i += 500) {
    const some = ids.slice(i, i + 500)
    await tx.run(
      `UPDATE ${table} SET customer_id = ? WHERE customer_id = ? AND id IN (${some.map(() => '?').join(', ')})`,
      [to, from, ...some],
    )
  }
}
/** What a customer has in the accounts that are kept by customer. */
export const ledgerBalances = (tx: Tx, customerId: string) =>
  tx.rows<{ account: 'receivable' | 'deposits'; sum: number }>(
    `SELECT account, CAST(SUM(amount_minor) AS SIGNED) AS sum FROM ledger_postings WHERE customer_id = ? AND account IN ('receivable', 'deposits') GROUP BY account HAVING SUM(amount_minor) <> 0`,
    [customerId],
  )
export const openOfInvoices = async (tx: Tx, ids: string[]) =>
  ids.length
    ? (await tx.row<{ sum: number }>(
        `SELECT CAST(COALESCE(SUM(open_minor), 0) AS SIGNED) AS sum FROM invoices WHERE id IN (${ids.map(() => '?').join(', ')})`,
        ids,
      ))!.sum
    : 0
export const unappliedOfPayments = async (tx: Tx, ids: string[]) =>
  ids.length
    ? (await tx.row<{ sum: number }>(
        `SELECT CAST((SELECT COALESCE(SUM(amount_minor), 0) FROM payments WHERE bounced_on IS NULL AND id IN (${ids.map(() => '?').join(', ')})) - (SELECT COALESCE(SUM(amount_minor), 0) FROM allocations WHERE payment_id IN (${ids.map(() => '?').join(', ')})) AS SIGNED) AS sum`,
        [...ids, ...ids],
      ))!.sum
    : 0
export interface MergeRow {
  id: string
  keptId: string
  mergedId: string
  moved: Record<MovedTable, string[]>
  before: { kept: Record<string, unknown>; merged: Record<string, unknown> }
  mergedAt: string
  undoneAt: string | null
}
export const insertMerge = (
  tx: Tx,
  m: Omit<MergeRow, 'mergedAt' | 'undoneAt'> & { by: string; at: number },
) =>
  tx.run(
    'INSERT INTO merges (id, kept_id, merged_id, moved, before_merge, merged_by, merged_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
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
    'SELECT id, kept_id AS keptId, merged_id AS mergedId, moved, before_merge AS `before`, merged_at AS mergedAt, undone_at AS undoneAt FROM merges WHERE id = ? FOR UPDATE',
    [id],
  )
  return r && { ...r, moved: json(r.moved), before: json(r.before) }
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
  columns: 'm.id, m.merged_id AS mergedId, c.name, m.merged_at AS at',
  from: 'merges m JOIN customers c ON c.id = m.merged_id WHERE m.kept_id = ? AND m.undone_at IS NULL',
  values: [customerId],
  order: 'm.merged_at DESC',
  limit: 20,
  instants: ['at'],
})
export const callsOf = (tx: Tx, customerId: string) =>
  tx.rows<{ id: string; summary: string; draft: unknown; reason: string; at: string }>(
    'SELECT id, summary, draft, reason, created_at AS at FROM calls WHERE JSON_VALUE(draft, "$.customerId") = ? OR work_order_id IN (SELECT id FROM work_orders WHERE customer_id = ?) LIMIT 500',
    [customerId, customerId],
  )

const WORK = 'SELECT id FROM work_orders WHERE customer_id = ?'
/**
 * Takes a person's words out of everything that may go. What a law makes the firm keep stays as it was sent: invoices, receipts, the
 * ledger, accepted quotes, and on work orders what was done and what it cost.
 */
export async function takeOutPerson(tx: Tx, customerId: string): Promise<void> {
  const run = (sql: string, times = 1) =>
    tx.run(
      sql,
      Array.from({ length: times }, () => customerId),
    )
  // What was merged into this customer is the same person.
  await run(
    `UPDATE customers SET name = 'Taken out', phone = '', phone2 = '', email = '', email2 = '', line1 = '', town = '', postcode = '', office_note = '', printed_note = '', exempt_certificate = '', tags = '[]', stop_work = '', source = '', custom = '{}', search = '' WHERE id = ? OR merged_into = ?`,
    2,
  )
  await run(
    `UPDATE sites SET name = '', line1 = 'taken out', town = '', postcode = '', access_note = '', custom = '{}', search = '', lat = NULL, lon = NULL WHERE customer_id = ?`,
  )
  await run(
    `UPDATE contacts SET name = 'Taken out', role = '', phone = '', phone2 = '', email = '', search = '', removed = TRUE WHERE customer_id = ?`,
  )
  await run(
    `UPDATE equipment e JOIN sites s ON s.id = e.site_id SET e.serial = '', e.note = '' WHERE s.customer_id = ?`,
  )
  await run(
    'DELETE FROM attachments WHERE customer_id = ? OR call_id IN (SELECT id FROM calls WHERE JSON_VALUE(draft, "$.customerId") = ?)',
    2,
  )
  await run(
    `UPDATE calls SET draft = '{}', summary = 'Taken out', reason = '' WHERE JSON_VALUE(draft, "$.customerId") = ? OR work_order_id IN (${WORK}) OR quote_id IN (SELECT id FROM quotes WHERE customer_id = ?)`,
    3,
  )
  await run(
    `UPDATE work_orders SET contact = '{"name":"","phone":""}', details = '{}', own_words = '', answers = '[]', problem = 'taken out', title = 'taken out', order_number = '', printed_note = '', custom = '{}', follow_up = '', source = '' WHERE customer_id = ?`,
  )
  await run(`UPDATE visits SET findings = '', note = '' WHERE work_order_id IN (${WORK})`)
  // That somebody signed, and for what, stays; who it was, and the hand, do not.
  await run(`UPDATE signatures SET name = 'taken out', image = '' WHERE work_order_id IN (${WORK})`)
  await run(`DELETE FROM photos WHERE work_order_id IN (${WORK})`)
  // An offer that nobody accepted is no paper that must stay.
  await run(
    `UPDATE quotes SET contact = '{"name":"","phone":""}', title = 'taken out', scope = '', order_number = '', source = '', answer = '', frozen = IF(state = 'accepted', frozen, NULL), version = version + 1 WHERE customer_id = ?`,
  )
  await run(
    `UPDATE messages SET recipients = '[]', subject = 'Taken out', body = '', error = '', state = IF(state = 'waiting', 'failed', state) WHERE customer_id = ?`,
  )
  await run(`UPDATE collection_notes SET text = '' WHERE customer_id = ?`)
  await run(
    `UPDATE merges SET before_merge = '{"kept":{},"merged":{}}', undone_at = COALESCE(undone_at, merged_at) WHERE kept_id = ? OR merged_id = ?`,
    2,
  )
  await run(
    `UPDATE day_plans d JOIN (SELECT v.id FROM visits v JOIN work_orders w ON w.id = v.work_order_id WHERE w.customer_id = ?) x ON d.result LIKE CONCAT('%', x.id, '%') SET d.result = NULL`,
  )
  await run(`UPDATE invoices SET custom = '{}', own_words = '' WHERE customer_id = ?`)
  await run(
    `UPDATE trail SET data = NULL, text = 'taken out when the person asked for it' WHERE customer_id = ? OR work_order_id IN (${WORK}) OR subject_id = ?`,
    3,
  )
  // Answers that were kept for repeated requests repeat the person.
  await run(`UPDATE idempotency_keys SET answer = NULL WHERE answer LIKE CONCAT('%', ?, '%')`)
  await run(
    `UPDATE idempotency_keys k JOIN (${WORK}) w ON k.answer LIKE CONCAT('%', w.id, '%') SET k.answer = NULL`,
  )
}
