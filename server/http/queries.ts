// The append-only trail: who did what, when, from where. Each entry is also the event that tells other screens.
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import { emit } from '../events/events'
import type { Ctx } from './context'
import { sentenceOf, type Fact } from './facts'

interface Entry {
  subject: string
  id: string
  workOrderId?: string | null
  customerId?: string | null
  /** what happened; entries whose subject has no facts yet say it as text */
  fact?: Fact
  text?: string
  data?: unknown
}
const whoOf = (ctx: Ctx, entry: Entry) =>
  ctx.actor?.name ?? (entry.subject === 'message' ? 'Open Ledger' : 'Customer')

export async function record(ctx: Ctx, entry: Entry): Promise<void> {
  const { workOrderId = null, customerId = null } = entry
  const data = entry.fact?.data ?? entry.data
  await ctx.tx.run(
    `INSERT INTO trail (at, person_id, who, ip, subject, subject_id, code, work_order_id,
      customer_id, text, data)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      sqlInstant(ctx.now),
      ctx.actor?.id ?? null,
      whoOf(ctx, entry),
      ctx.ip,
      entry.subject,
      entry.id,
      entry.fact?.code ?? null,
      workOrderId,
      customerId,
      entry.text?.slice(0, 300) ?? '',
      data === undefined ? null : JSON.stringify(data),
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
type Stored = HistoryRow & { code: string | null; data: string | null }
const STORED = 'SELECT id, at, who, text, code, IF(code IS NULL, NULL, data) AS data FROM trail'
const said = ({ id, at, who, ...entry }: Stored): HistoryRow => ({
  id,
  at,
  who,
  text: sentenceOf({ ...entry, data: entry.data && entry.data }).slice(0, LONGEST_SENTENCE),
})
const LONGEST_SENTENCE = 300
const SUBJECTS = { work_order_id: 100, customer_id: 150, subject_id: 100 } as const

/** What happened to a work order, a customer (with the ones merged into it), or anything else, the last first. */
export async function historyOf(
  tx: Tx,
  column: keyof typeof SUBJECTS,
  ids: string[],
): Promise<HistoryRow[]> {
  const rows = await tx.rows<Stored>(
    `${STORED} WHERE ${column} IN (${placeholders(ids)}) ORDER BY id DESC LIMIT ${SUBJECTS[column]}`,
    ids,
  )
  return rows.map(said)
}
