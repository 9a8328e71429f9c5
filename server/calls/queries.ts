// SQL of calls.
import { sqlInstant, type Tx } from '../db/pool'

export interface CallRow { id: string, state: string, draft: unknown, summary: string, workOrderId: string | null, callBackOn: string | null, reason: string, takenBy: string, createdAt: string, version: number }
const CALL = 'SELECT k.id, k.state, k.draft, k.summary, k.work_order_id AS workOrderId, k.call_back_on AS callBackOn, k.reason, p.name AS takenBy, k.created_at AS createdAt, k.version FROM calls k JOIN people p ON p.id = k.taken_by'
export const waitingCalls = (tx: Tx) => tx.rows<CallRow>(`${CALL} WHERE k.state IN ('open', 'put_off') ORDER BY COALESCE(k.call_back_on, '2000-01-01'), k.created_at LIMIT 200`)
export const callById = (tx: Tx, id: string) => tx.row<CallRow>(`${CALL} WHERE k.id = ?`, [id])
export const keepCall = (tx: Tx, c: { id: string, draft: unknown, summary: string, by: string, at: number }) => tx.run(
  `INSERT INTO calls (id, draft, summary, taken_by, created_at) VALUES (?, ?, ?, ?, ?)
   ON DUPLICATE KEY UPDATE draft = IF(state IN ('booked', 'declined'), draft, VALUES(draft)), summary = IF(state IN ('booked', 'declined'), summary, VALUES(summary)), version = version + 1`,
  [c.id, JSON.stringify(c.draft), c.summary, c.by, sqlInstant(c.at)])
export const markCall = async (tx: Tx, id: string, state: string, values: { workOrderId?: string, reason?: string, callBackOn?: string | null }) =>
  (await tx.run('UPDATE calls SET state = ?, work_order_id = COALESCE(?, work_order_id), reason = ?, call_back_on = ?, version = version + 1 WHERE id = ? AND state IN ("open", "put_off")', [state, values.workOrderId ?? null, values.reason ?? '', values.callBackOn ?? null, id])).affected
