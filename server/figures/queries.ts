// SQL of the run and of the one search.
import { sqlInstant, type Tx } from '../db/pool'
import { allBeginning, wordsOf } from '../db/search.queries'
import { findings } from '../subjects'

/** What of it is late, and what stands on the schedule of a day. */
export const runRow = (tx: Tx, today: string, from: number, to: number) =>
  tx.row<{ lateCalls: number; visits: number; late: number }>(
    `SELECT (SELECT COUNT(*) FROM calls WHERE state = 'put_off' AND call_back_on < ?) AS lateCalls,
      (SELECT COUNT(*) FROM visits WHERE state <> 'cancelled' AND start_at >= ? AND start_at < ?) AS
      visits, (SELECT COUNT(*) FROM invoices WHERE open_minor > 0 AND due_on < ?) AS late`,
    [today, sqlInstant(from), sqlInstant(to), today],
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
