// The append-only trail: who did what, when, from where. Each entry is also the event that tells other screens.
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import { emit } from '../events/events'
import type { Ctx } from './context'

interface Entry {
  subject: string
  id: string
  workOrderId?: string | null
  customerId?: string | null
  text: string
  data?: unknown
}
const whoOf = (ctx: Ctx, entry: Entry) =>
  ctx.actor?.name ?? (entry.subject === 'message' ? 'Open Ledger' : 'Customer')

export async function record(ctx: Ctx, entry: Entry): Promise<void> {
  const { workOrderId = null, customerId = null } = entry
  await ctx.tx.run(
    'INSERT INTO trail (at, person_id, who, ip, subject, subject_id, work_order_id, customer_id, text, data) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      sqlInstant(ctx.now),
      ctx.actor?.id ?? null,
      whoOf(ctx, entry),
      ctx.ip,
      entry.subject,
      entry.id,
      workOrderId,
      customerId,
      entry.text.slice(0, 300),
      entry.data === undefined ? null : JSON.stringify(entry.data),
    ],
  )
  emit(ctx.tx, { topic: 'change', subject: entry.subject, subjectId: entry.id, workOrderId })
}
export interface HistoryRow {
  id: number
  at: string
  who: string
  text: string
}
export const historyOf = (
  tx: Tx,
  column: 'work_order_id' | 'customer_id',
  id: string,
  limit = 100,
): Promise<HistoryRow[]> =>
  tx.rows<HistoryRow>(
    `SELECT id, at, who, text FROM trail WHERE ${column} = ? ORDER BY id DESC LIMIT ${limit}`,
    [id],
  )
/** A customer's history, with that of the ones merged into it. */
export const historyOfCustomer = (tx: Tx, ids: string[]): Promise<HistoryRow[]> =>
  tx.rows<HistoryRow>(
    `SELECT id, at, who, text FROM trail WHERE customer_id IN (${placeholders(ids)}) ORDER BY id DESC LIMIT 150`,
    ids,
  )
