// SQL of what is owed: open invoices less credits.
import { placeholders, type Tx } from '../db/pool'
import { listOf, type ListIn } from '../db/queries'

/** `owed` is what is open on invoices less credits, as ageing has it; only who owes is late. */
export interface Owed {
  customerId: string
  owed: number
  credits: number
  over60: number
  oldest: string | null
}
const open = (ids: string[]) =>
  `SELECT customer_id, open_minor AS open, 0 AS credit, due_on
  FROM invoices
  WHERE open_minor <> 0 AND customer_id IN (${placeholders(ids)})`
const creditsOf = (ids: string[]) =>
  `SELECT customer_id, 0 AS open, amount_minor AS credit, NULL AS due_on
  FROM payments
  WHERE received_on <= ? AND (bounced_on IS NULL OR bounced_on > ?)
    AND customer_id IN (${placeholders(ids)})
  UNION ALL SELECT p.customer_id, 0, -a.amount_minor, NULL
  FROM payments p
  JOIN allocations a ON a.payment_id = p.id
  WHERE p.received_on <= ? AND a.on_date <= ?
    AND p.customer_id IN (${placeholders(ids)})`
export const owedIn = (ids: string[], today: string): ListIn => ({
  columns: 'o.customer_id, o.owed, o.credits, o.over60, IF(o.owed > 0, o.oldest, NULL) AS oldest',
  from: `(SELECT customer_id, CAST(SUM(open - credit) AS SIGNED) AS owed, CAST(SUM(credit) AS
      SIGNED) AS credits, CAST(SUM(IF(due_on < DATE_SUB(?, INTERVAL 60 DAY), open, 0)) AS SIGNED) AS
      over60, MIN(IF(open > 0 AND due_on < ?, due_on, NULL)) AS oldest FROM (${open(ids)} UNION ALL
      ${creditsOf(ids)}) x GROUP BY customer_id) o`,
  values: [today, today, ...ids, today, today, ...ids, today, today, ...ids],
  order: 'o.customer_id',
})
export const owedBy = (tx: Tx, ids: string[], today: string) => listOf<Owed>(tx, owedIn(ids, today))
