// SQL of what the states of all work orders follow from, in one question.
import { sqlInstant, type Tx } from '../db/pool'
import { inThousands } from '../db/queries'
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
type Sums = Partial<StandingRow> & { workOrderId: string }
/** Of the work orders after one, up to another. */
const among = (of: string) => `${of}.work_order_id > ? AND ${of}.work_order_id <= ?`
/** What of each line of these is billed: a line is of one work order, and so are its bills. */
const BILLED = `SELECT x.id, SUM(il.net_minor) AS net
  FROM work_lines x
  JOIN invoice_lines il ON il.work_line_id = x.id
  JOIN invoices i ON i.id = il.invoice_id
  WHERE ${among('x')} AND i.state <> 'void'
  GROUP BY x.id`
type Part = (range: readonly [string, string], now: string) => [sql: string, ...values: string[]]
/** What follows from the tables around work orders, one question for each: together the server would ask them anew for every row. */
const AROUND: readonly Part[] = [
  (range) => [
    `SELECT work_order_id, GROUP_CONCAT(CONCAT(state, IF(start_at IS NULL OR technician_id IS NULL,
      '-', '+')) SEPARATOR ' ') AS visits FROM visits t WHERE ${among('t')} GROUP BY work_order_id`,
    ...range,
  ],
  (range) => [
    `SELECT n.work_order_id, CAST(SUM(IF(n.done, GREATEST(0, n.net_minor - COALESCE(d.net, 0)), 0))
      AS SIGNED) AS toBillMinor, CAST(SUM(IF(n.done, n.covers_seconds, 0)) AS SIGNED) AS
      coveredSeconds, CAST(COALESCE(SUM(d.net), 0) AS SIGNED) AS billedMinor, CAST(SUM(NOT n.done
      AND n.promised_minor > 0) AS SIGNED) AS undone FROM work_lines n LEFT JOIN (${BILLED}) d ON
      d.id = n.id WHERE ${among('n')} AND NOT n.removed GROUP BY n.work_order_id`,
    ...range,
    ...range,
  ],
  (range) => [
    `SELECT work_order_id, CAST(SUM(open_minor) AS SIGNED) AS unpaidMinor FROM invoices t
      WHERE ${among('t')} GROUP BY work_order_id`,
    ...range,
  ],
  (range) => [
    `SELECT work_order_id, SUM(state = 'accepted') = 0 AS quoted FROM quotes t WHERE ${among('t')}
      GROUP BY work_order_id`,
    ...range,
  ],
  (range, now) => [
    `SELECT t.work_order_id, CAST(SUM(ROUND(TIMESTAMPDIFF(MICROSECOND, c.started_at,
      COALESCE(c.ended_at, ?)) / 1000000)) AS SIGNED) AS workedSeconds FROM visits t JOIN
      clock_intervals c ON c.visit_id = t.id JOIN people p ON p.id = c.person_id WHERE ${among('t')}
      AND c.kind = 'on_site' AND p.kind <> 'apprentice' GROUP BY t.work_order_id`,
    now,
    ...range,
  ],
]
const NOTHING = {
  ...{ visits: null, toBillMinor: 0, coveredSeconds: 0, billedMinor: 0 },
  ...{ undone: 0, unpaidMinor: 0, quoted: 0, workedSeconds: 0 },
}
/** What each work order is kept as, and what that follows from. */
export async function* standings(tx: Tx, now: number): AsyncGenerator<StandingRow> {
  const pieces = inThousands(async (after, limit) => {
    const kept = await tx.rows<StandingRow>(
      `SELECT id, number, state, to_bill_minor AS toBill, uncovered_seconds AS uncovered, cancelled,
        closed, callback_of IS NOT NULL AS free, explained_seconds
      FROM work_orders WHERE id > ? ORDER BY id LIMIT ${limit}`,
      [after],
    )
    const all = new Map(kept.map((row) => [row.id, Object.assign(row, NOTHING)]))
    for (const part of AROUND) {
      const [sql, ...values] = part([after, kept.at(-1)?.id ?? after], sqlInstant(now))
      for (const { workOrderId, ...sums } of await tx.rows<Sums>(sql, values))
        Object.assign(all.get(workOrderId)!, sums)
    }
    return kept
  })
  for await (const piece of pieces) yield* piece
}
/** The visits of a row. */
export const visitsIn = ({ visits }: StandingRow): { state: VisitState; placed: boolean }[] =>
  (visits?.split(' ') ?? []).map((v) => ({
    state: v.slice(0, -1) as VisitState,
    placed: v.endsWith('+'),
  }))
