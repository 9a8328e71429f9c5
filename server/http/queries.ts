// The append-only trail: who did what, when, from where. Each entry is also the live event that tells other screens.
import { EventEmitter } from 'node:events'
import { marks, sqlInstant, type Tx } from '../db/pool'
import type { Ctx } from './context'

export interface LiveEvent { id: number, subject: string, subjectId: string, workOrderId: string | null }
export const bus = new EventEmitter().setMaxListeners(0)

export async function record(ctx: Ctx, entry: { subject: string, id: string, workOrderId?: string | null, customerId?: string | null, text: string, data?: unknown }): Promise<void> {
  const { insertId } = await ctx.tx.run(
    'INSERT INTO trail (at, person_id, who, ip, subject, subject_id, work_order_id, customer_id, text, data) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [sqlInstant(ctx.now), ctx.actor?.id ?? null, ctx.actor?.name ?? (entry.subject === 'message' ? 'Open Ledger' : 'Customer'), ctx.ip, entry.subject, entry.id, entry.workOrderId ?? null, entry.customerId ?? null, entry.text.slice(0, 300), entry.data === undefined ? null : JSON.stringify(entry.data)])
  const event: LiveEvent = { id: insertId, subject: entry.subject, subjectId: entry.id, workOrderId: entry.workOrderId ?? null }
  ctx.tx.afterCommit(() => bus.emit('change', event))
}
export interface HistoryRow { id: number, at: string, who: string, text: string }
export const historyOf = (tx: Tx, column: 'work_order_id' | 'customer_id', id: string, limit = 100): Promise<HistoryRow[]> =>
  tx.rows<HistoryRow>(`SELECT id, at, who, text FROM trail WHERE ${column} = ? ORDER BY id DESC LIMIT ${limit}`, [id])
/** A customer's history, with that of the ones merged into it. */
export const historyOfCustomer = (tx: Tx, ids: string[]): Promise<HistoryRow[]> =>
  tx.rows<HistoryRow>(`SELECT id, at, who, text FROM trail WHERE customer_id IN (${marks(ids)}) ORDER BY id DESC LIMIT 150`, ids)
export const eventsAfter = (tx: Tx, id: number): Promise<LiveEvent[]> =>
  tx.rows<LiveEvent>('SELECT id, subject, subject_id AS subjectId, work_order_id AS workOrderId FROM trail WHERE id > ? ORDER BY id LIMIT 500', [id])
