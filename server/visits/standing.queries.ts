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
  undone: number
  workedSeconds: number
  coveredSeconds: number
  explainedSeconds: number
}
/** What of each line is billed: a line is of one work order, and so are its bills. */
const BILLED = `SELECT il.work_line_id, SUM(il.net_minor) AS net
  FROM invoice_lines il
  JOIN invoices i ON i.id = il.invoice_id
  WHERE i.state <> 'void' AND il.work_line_id IS NOT NULL
  GROUP BY il.work_line_id`
type Sums = Partial<StandingRow> & { workOrderId: string }
/** What follows from the tables around a work order, one question for each: together the server would ask them anew for every row. */
const AROUND: readonly ((now: string) => [sql: string, ...values: string[]])[] = [
  () => [
    `SELECT work_order_id, GROUP_CONCAT(CONCAT(state, IF(start_at IS NULL OR technician_id IS NULL,
      '-', '+')) SEPARATOR ' ') AS visits FROM visits GROUP BY work_order_id`,
  ],
  () => [
    `SELECT n.work_order_id, CAST(SUM(IF(n.done, GREATEST(0, n.net_minor - COALESCE(d.net, 0)), 0))
      AS SIGNED) AS toBillMinor, CAST(SUM(IF(n.done, n.covers_seconds, 0)) AS SIGNED) AS
      coveredSeconds, CAST(COALESCE(SUM(d.net), 0) AS SIGNED) AS billedMinor, CAST(SUM(NOT n.done AND n.promised_minor > 0) AS SIGNED) AS undone FROM work_lines n LEFT
      JOIN (${BILLED}) d ON d.work_line_id = n.id WHERE NOT n.removed GROUP BY n.work_order_id`,
  ],
  () => [
    `SELECT work_order_id, CAST(SUM(open_minor) AS SIGNED) AS unpaidMinor FROM invoices WHERE
      work_order_id IS NOT NULL GROUP BY work_order_id`,
  ],
  () => [
    `SELECT work_order_id, SUM(state = 'accepted') = 0 AS quoted FROM quotes WHERE work_order_id IS
      NOT NULL GROUP BY work_order_id`,
  ],
  (now) => [
    `SELECT t.work_order_id, CAST(SUM(ROUND(TIMESTAMPDIFF(MICROSECOND, c.started_at,
      COALESCE(c.ended_at, ?)) / 1000000)) AS SIGNED) AS workedSeconds FROM clock_intervals c JOIN
      visits t ON t.id = c.visit_id JOIN people p ON p.id = c.person_id WHERE c.kind = 'on_site' AND
      p.kind <> 'apprentice' GROUP BY t.work_order_id`,
    now,
  ],
]
const NOTHING = {
  ...{ visits: null, toBillMinor: 0, coveredSeconds: 0, billedMinor: 0 },
  ...{ undone: 0, unpaidMinor: 0, quoted: 0, workedSeconds: 0 },
}
/** What each work order is kept as, and what that follows from. */
export async function* standings(tx: Tx, now: number): AsyncGenerator<StandingRow> {
  const around = new Map<string, Sums>()
  for (const part of AROUND) {
    const [sql, ...values] = part(sqlInstant(now))
    for await (const row of tx.each<Sums>(sql, values))
      around.set(row.workOrderId, { ...around.get(row.workOrderId), ...row })
  }
  const kept = tx.each<StandingRow>(
    `SELECT id, number, state, to_bill_minor AS toBill, uncovered_seconds AS uncovered, cancelled,
      closed, callback_of IS NOT NULL AS free, explained_seconds
    FROM work_orders`,
  )
  for await (const row of kept) yield { ...NOTHING, ...around.get(row.id), ...row }
}
/** The visits of a row. */
export const visitsIn = ({ visits }: StandingRow): { state: VisitState; placed: boolean }[] =>
  (visits?.split(' ') ?? []).map((v) => ({
    state: v.slice(0, -1) as VisitState,
    placed: v.endsWith('+'),
  }))
