// SQL of the run and of the one search.
import { sqlInstant, type Tx } from '../db/pool'
import { allBeginning, wordsOf } from '../db/search.queries'
import { findings } from '../subjects'

export const runRow = (tx: Tx, today: string, from: number, to: number) =>
  tx.row<{
    calls: number
    lateCalls: number
    visits: number
    noSlot: number
    onSite: number
    toBill: number
    toBillSum: number
    unpaid: number
    unpaidSum: number
    late: number
    quotes: number
    quotesSum: number
  }>(
    `SELECT (SELECT COUNT(*) FROM calls WHERE state = 'open' OR (state = 'put_off' AND call_back_on
      <= ?)) AS calls, (SELECT COUNT(*) FROM calls WHERE state = 'put_off' AND call_back_on < ?) AS
      lateCalls, (SELECT COUNT(*) FROM visits WHERE state <> 'cancelled' AND start_at >= ? AND
      start_at < ?) AS visits, (SELECT COUNT(*) FROM visits v JOIN work_orders w ON w.id =
      v.work_order_id WHERE v.state = 'planned' AND (v.start_at IS NULL OR v.technician_id IS NULL)
      AND w.state NOT IN ('cancelled', 'closed')) AS noSlot,
      (SELECT COUNT(*) FROM visits WHERE state IN ('on_site', 'paused')) AS onSite,
      (SELECT COUNT(*) FROM work_orders WHERE state = 'to_bill') AS toBill,
      (SELECT CAST(COALESCE(SUM(to_bill_minor), 0) AS SIGNED) FROM work_orders WHERE state =
      'to_bill') AS toBillSum, (SELECT COUNT(*) FROM invoices WHERE open_minor > 0) AS unpaid,
      (SELECT CAST(COALESCE(SUM(open_minor), 0) AS SIGNED) FROM invoices WHERE open_minor > 0) AS
      unpaidSum, (SELECT COUNT(*) FROM invoices WHERE open_minor > 0 AND due_on < ?) AS late,
      (SELECT COUNT(*) FROM quotes WHERE state IN ('draft', 'sent')) AS quotes,
      (SELECT CAST(COALESCE(SUM(net_minor), 0) AS SIGNED) FROM quotes WHERE state IN ('draft',
      'sent')) AS quotesSum`,
    [today, today, sqlInstant(from), sqlInstant(to), today],
  )
export interface FoundPaper {
  kind: string
  id: string
  title: string
  detail: string
}
/** Papers that what was typed could mean: each subject says how it is found. */
export function findPapers(tx: Tx, q: string): Promise<FoundPaper[]> {
  const asked = {
    words: allBeginning(wordsOf(q)),
    number: `${q.replace(/[\\%_]/g, '\\$&')}%`,
  }
  return tx.rows<FoundPaper>(
    findings.map((finding) => `(${finding.sql})`).join(' UNION ALL '),
    findings.flatMap((finding) => finding.values(asked)),
  )
}
