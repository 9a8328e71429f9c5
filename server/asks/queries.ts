// SQL of what was asked of somebody who may.
import { sqlInstant, type Tx } from '../db/pool'

export interface AskRow {
  id: string
  route: string
  params: Record<string, string>
  body: unknown
  /** what it would do, in words */
  what: string
  reason: string
  askedBy: string
  askedById: string
  askedAt: string
  state: 'asked' | 'given' | 'refused' | 'withdrawn'
  workOrderId: string | null
  quoteId: string | null
  customerId: string
}
const ASK = `a.id, a.route, a.params, a.body, a.what, a.reason, p.name AS askedBy, a.asked_by AS
    askedById, a.asked_at, a.state, a.work_order_id, a.quote_id, a.customer_id`
export const insertAsk = (
  tx: Tx,
  a: Omit<AskRow, 'askedBy' | 'askedAt' | 'state'> & { at: number },
) =>
  tx.run(
    `INSERT INTO asks (id, route, params, body, what, reason, asked_by, asked_at, work_order_id,
      quote_id, customer_id)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      ...[a.id, a.route, JSON.stringify(a.params), JSON.stringify(a.body), a.what, a.reason],
      ...[a.askedById, sqlInstant(a.at), a.workOrderId, a.quoteId, a.customerId],
    ],
  )
export const askById = (tx: Tx, id: string) =>
  tx.row<AskRow>(
    `SELECT ${ASK} FROM asks a JOIN people p ON p.id = a.asked_by WHERE a.id = ? FOR UPDATE`,
    [id],
  )
/** What waits for a yes on a work order, or on a quote. */
export const asksAbout = (tx: Tx, of: 'work_order_id' | 'quote_id', id: string) =>
  tx.rows<AskRow>(
    `SELECT ${ASK} FROM asks a JOIN people p ON p.id = a.asked_by
    WHERE a.${of} = ? AND a.state = 'asked' ORDER BY a.asked_at, a.id`,
    [id],
  )
export const setAnswer = (
  tx: Tx,
  id: string,
  { state, by, at, words }: { state: AskRow['state']; by: string; at: number; words: string },
) =>
  tx.run('UPDATE asks SET state = ?, answered_by = ?, answered_at = ?, answer = ? WHERE id = ?', [
    state,
    by,
    sqlInstant(at),
    words,
    id,
  ])
