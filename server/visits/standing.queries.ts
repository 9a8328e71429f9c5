// SQL of what the states of all work orders follow from, in one question.
import { sqlInstant, type Tx } from '../db/pool'
import type { WorkOrderState } from '../../core/visits/workOrderState'
import type { VisitState } from '../../core/visits/visitLifecycle'

export interface StandingRow {
  id: string
  number: string
  state: WorkOrderState
  toBill: number
  uncovered: number
  cancelled: boolean
  closed: boolean
  free: number
  quoted: number
  /** each visit as its state, and whether it has its place: `planned+ finished-` */
  visits: string | null
  toBillMinor: number
  billedMinor: number
  unpaidMinor: number
  workedSeconds: number
  coveredSeconds: number
  explainedSeconds: number
}
const BILLED = `SELECT i.work_order_id, il.work_line_id, SUM(il.net_minor) AS net
  FROM invoice_lines il
  JOIN invoices i ON i.id = il.invoice_id
  WHERE i.state <> 'void' AND i.work_order_id IS NOT NULL AND il.work_line_id IS NOT NULL
  GROUP BY i.work_order_id, il.work_line_id`
/** What each work order is kept as, and what that follows from. */
export const standings = (tx: Tx, now: number) =>
  tx.each<StandingRow>(
    `SELECT w.id, w.number, w.state, w.to_bill_minor AS toBill, w.uncovered_seconds AS uncovered,
      w.cancelled, w.closed, w.callback_of IS NOT NULL AS free,
      COALESCE(q.quoted, 0) AS quoted, v.visits,
      CAST(COALESCE(l.to_bill, 0) AS SIGNED) AS toBillMinor,
      CAST(COALESCE(b.billed, 0) AS SIGNED) AS billedMinor,
      CAST(COALESCE(i.unpaid, 0) AS SIGNED) AS unpaidMinor,
      CAST(COALESCE(k.worked, 0) AS SIGNED) AS workedSeconds,
      CAST(COALESCE(l.covered, 0) AS SIGNED) AS coveredSeconds, w.explained_seconds
    FROM work_orders w
    LEFT JOIN (SELECT work_order_id, GROUP_CONCAT(CONCAT(state, IF(start_at IS NULL OR technician_id
      IS NULL, '-', '+')) SEPARATOR ' ') AS visits FROM visits GROUP BY work_order_id) v
      ON v.work_order_id = w.id
    LEFT JOIN (SELECT n.work_order_id, SUM(IF(n.done, GREATEST(0, n.net_minor - COALESCE(d.net, 0)),
      0)) AS to_bill, SUM(IF(n.done, n.covers_seconds, 0)) AS covered FROM work_lines n LEFT JOIN
      (${BILLED}) d ON d.work_order_id = n.work_order_id AND d.work_line_id = n.id WHERE NOT
      n.removed GROUP BY n.work_order_id) l ON l.work_order_id = w.id
    LEFT JOIN (SELECT d.work_order_id, SUM(d.net) AS billed FROM (${BILLED}) d JOIN work_lines n ON
      n.id = d.work_line_id AND NOT n.removed GROUP BY d.work_order_id) b ON b.work_order_id = w.id
    LEFT JOIN (SELECT work_order_id, SUM(open_minor) AS unpaid FROM invoices GROUP BY work_order_id) i
      ON i.work_order_id = w.id
    LEFT JOIN (SELECT work_order_id, SUM(state = 'accepted') = 0 AS quoted FROM quotes GROUP BY
      work_order_id) q ON q.work_order_id = w.id
    LEFT JOIN (SELECT t.work_order_id, SUM(ROUND(TIMESTAMPDIFF(MICROSECOND, c.started_at,
      COALESCE(c.ended_at, ?)) / 1000000)) AS worked FROM clock_intervals c JOIN visits t ON t.id =
      c.visit_id JOIN people p ON p.id = c.person_id WHERE c.kind = 'on_site' AND p.kind <>
      'apprentice' GROUP BY t.work_order_id) k ON k.work_order_id = w.id`,
    [sqlInstant(now)],
  )
/** The visits of a row. */
export const visitsIn = ({ visits }: StandingRow): { state: VisitState; placed: boolean }[] =>
  (visits?.split(' ') ?? []).map((v) => ({
    state: v.slice(0, -1) as VisitState,
    placed: v.endsWith('+'),
  }))
