// SQL of what was done for a customer: work, parts, papers, files.
import type { StoredInvoiceState } from '../../core/invoices/invoiceLifecycle'
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import { listOf, type ListIn } from '../db/queries'

export interface WorkRow {
  customerId: string
  id: string
  number: string
  title: string
  state: string
  on: string
  equipmentId: string | null
}
const WORK =
  'SELECT customer_id, id, number, title, state, DATE(created_at) AS `on`, equipment_id FROM work_orders'
export const openWorkOf = (tx: Tx, ids: string[]) =>
  tx.rows<WorkRow>(
    `${WORK}
    WHERE customer_id IN (${placeholders(ids)}) AND state NOT IN ('closed', 'cancelled', 'billed')
    ORDER BY created_at DESC LIMIT 200`,
    ids,
  )
export const lastWorkOf = (tx: Tx, customerId: string) =>
  tx.rows<WorkRow>(
    `SELECT w.customer_id, w.id, w.number, w.title, w.state, DATE(MAX(v.finished_at)) AS \`on\`,
      w.equipment_id
    FROM work_orders w
    JOIN visits v ON v.work_order_id = w.id
      AND v.state = 'finished'
    WHERE w.customer_id = ?
    GROUP BY w.customer_id, w.id, w.number, w.title, w.state, w.equipment_id
    ORDER BY MAX(v.finished_at) DESC LIMIT 6`,
    [customerId],
  )
export interface Supplied {
  lineId: string
  siteId: string
  at: string
  name: string
  workOrderId: string
  number: string
}
const SUPPLIED = `l.id AS lineId, w.site_id, COALESCE(w.done_at, w.created_at) AS at, l.name,
    w.id AS workOrderId, w.number`
/** What was supplied to a customer’s sites before, the latest first. */
export const suppliedIn = (customerId: string): ListIn => ({
  columns: SUPPLIED,
  from: `work_lines l
    JOIN work_orders w ON w.id = l.work_order_id
    WHERE w.customer_id = ? AND l.kind IN ('part', 'task') AND l.done AND NOT l.removed`,
  values: [customerId],
  order: 'COALESCE(w.done_at, w.created_at) DESC, l.position',
  limit: 60,
  instants: ['at'],
})
/** What was supplied before, that a work order is about. */
export const suppliedAboutIn = (workOrderId: string): ListIn => ({
  columns: SUPPLIED,
  from: `work_lines l
    JOIN work_orders w ON w.id = l.work_order_id
    WHERE l.id = (SELECT a.about_line_id FROM work_orders a WHERE a.id = ?)`,
  values: [workOrderId],
  order: 'l.id',
  instants: ['at'],
})
/** One thing that was supplied before. */
export const suppliedById = (tx: Tx, lineId: string) =>
  tx.row<Supplied>(
    `SELECT ${SUPPLIED} FROM work_lines l JOIN work_orders w ON w.id = l.work_order_id
    WHERE l.id = ?`,
    [lineId],
  )
export const insertFile = (
  tx: Tx,
  f: {
    id: string
    customerId: string | null
    callId: string | null
    name: string
    mime: string
    bytes: Buffer
    by: string | null
    at: number
  },
) =>
  tx.run(
    `INSERT INTO attachments (id, customer_id, call_id, name, mime, bytes, added_by, added_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
    [f.id, f.customerId, f.callId, f.name, f.mime, f.bytes, f.by, sqlInstant(f.at)],
  )
export const fileById = (tx: Tx, id: string) =>
  tx.row<{ name: string; mime: string; bytes: Buffer }>(
    'SELECT name, mime, bytes FROM attachments WHERE id = ?',
    [id],
  )
export interface FileRow {
  id: string
  of: string
  name: string
  mime: string
  at: string
}
export const filesIn = (column: 'customer_id' | 'call_id', ids: string[]): ListIn => ({
  columns: `id, ${column} AS \`of\`, name, mime, added_at AS at`,
  from: `attachments WHERE ${column} IN (${placeholders(ids)})`,
  values: ids,
  order: 'added_at',
  limit: 400,
  instants: ['at'],
})
export const filesOf = (tx: Tx, column: 'customer_id' | 'call_id', ids: string[]) =>
  listOf<FileRow>(tx, filesIn(column, ids))
export const filesOfCallTo = (tx: Tx, callId: string, customerId: string) =>
  tx.run('UPDATE attachments SET customer_id = ? WHERE call_id = ? AND customer_id IS NULL', [
    customerId,
    callId,
  ])
export interface PaperRow {
  id: string
  number: string
  on: string
  total: number
  open: number
  paid: number
  sent: boolean
  state: StoredInvoiceState
}
export const papersIn = (customerId: string): ListIn => ({
  columns:
    'id, number, issue_on AS `on`, total_minor AS total, open_minor AS open, paid_minor AS paid, sent, state',
  from: 'invoices WHERE customer_id = ?',
  values: [customerId],
  order: 'open_minor > 0 DESC, issue_on DESC',
  limit: 40,
  booleans: ['sent'],
})
