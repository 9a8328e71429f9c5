// SQL of the run and of the one search.
import { sqlInstant, type Tx } from '../db/pool'
import { allBeginning, wordsOf } from '../db/search.queries'

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
    `SELECT (SELECT COUNT(*) FROM calls WHERE state = 'open' OR (state = 'put_off' AND call_back_on <= ?)) AS calls,
    (SELECT COUNT(*) FROM calls WHERE state = 'put_off' AND call_back_on < ?) AS lateCalls,
    (SELECT COUNT(*) FROM visits WHERE state <> 'cancelled' AND start_at >= ? AND start_at < ?) AS visits,
    (SELECT COUNT(*) FROM visits v JOIN work_orders w ON w.id = v.work_order_id WHERE v.state = 'planned' AND (v.start_at IS NULL OR v.technician_id IS NULL) AND w.state NOT IN ('cancelled', 'closed')) AS noSlot,
    (SELECT COUNT(*) FROM visits WHERE state IN ('on_site', 'paused')) AS onSite,
    (SELECT COUNT(*) FROM work_orders WHERE state = 'to_bill') AS toBill, (SELECT CAST(COALESCE(SUM(to_bill_minor), 0) AS SIGNED) FROM work_orders WHERE state = 'to_bill') AS toBillSum,
    (SELECT COUNT(*) FROM invoices WHERE open_minor > 0) AS unpaid, (SELECT CAST(COALESCE(SUM(open_minor), 0) AS SIGNED) FROM invoices WHERE open_minor > 0) AS unpaidSum,
    (SELECT COUNT(*) FROM invoices WHERE open_minor > 0 AND due_on < ?) AS late,
    (SELECT COUNT(*) FROM quotes WHERE state IN ('draft', 'sent')) AS quotes, (SELECT CAST(COALESCE(SUM(net_minor), 0) AS SIGNED) FROM quotes WHERE state IN ('draft', 'sent')) AS quotesSum`,
    [today, today, sqlInstant(from), sqlInstant(to), today],
  )
export interface FoundPaper {
  kind: string
  id: string
  title: string
  detail: string
}
/** Papers that what was typed could mean: by words that theirs begin with, by a number of ours or of theirs. */
export function findPapers(tx: Tx, q: string): Promise<FoundPaper[]> {
  const words = allBeginning(wordsOf(q))
  const number = `${q.replace(/[\\%_]/g, '\\$&')}%`
  return tx.rows<FoundPaper>(
    `(SELECT 'work' AS kind, w.id, CONCAT(w.number, ' ', w.title) AS title, IF(w.order_number = '', c.name, CONCAT(c.name, ', their order ', w.order_number)) AS detail FROM work_orders w JOIN customers c ON c.id = w.customer_id
        WHERE w.id IN (SELECT id FROM (SELECT id FROM work_orders WHERE MATCH(number, title, order_number, own_words) AGAINST (? IN BOOLEAN MODE) UNION SELECT id FROM work_orders WHERE number LIKE ?) f)
        ORDER BY w.created_at DESC LIMIT 6)
     UNION ALL (SELECT 'invoice', i.id, i.number, c.name FROM invoices i JOIN customers c ON c.id = i.customer_id
        WHERE i.id IN (SELECT id FROM (SELECT id FROM invoices WHERE MATCH(number, own_words) AGAINST (? IN BOOLEAN MODE) UNION SELECT id FROM invoices WHERE number LIKE ?) f) ORDER BY i.issue_on DESC LIMIT 6)
     UNION ALL (SELECT 'quote', q.id, CONCAT(q.number, ' ', q.title), c.name FROM quotes q JOIN customers c ON c.id = q.customer_id
        WHERE q.id IN (SELECT id FROM (SELECT id FROM quotes WHERE MATCH(number, title, order_number) AGAINST (? IN BOOLEAN MODE) UNION SELECT id FROM quotes WHERE number LIKE ?) f) ORDER BY q.created_at DESC LIMIT 6)
     UNION ALL (SELECT 'receipt', p.customer_id, p.number, c.name FROM payments p JOIN customers c ON c.id = p.customer_id
        WHERE p.id IN (SELECT id FROM (SELECT id FROM payments WHERE MATCH(number, reference) AGAINST (? IN BOOLEAN MODE) UNION SELECT id FROM payments WHERE number LIKE ?) f) LIMIT 4)
     UNION ALL (SELECT 'call', k.id, k.summary, IF(k.state = 'put_off', 'to call back', 'half-filled') FROM calls k WHERE k.state IN ('open', 'put_off') AND k.summary LIKE ? ORDER BY k.created_at DESC LIMIT 4)`,
    [words, number, words, number, words, number, words, number, `%${number}`],
  )
}
