// SQL of what is unpaid: balances as they stood on a date, habits, and what was said.
import type { BackReason } from '../../core/payments/takingBack'
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import { listsIn, type ListIn } from '../db/queries'
import { balanceIn } from '../ledger/queries'
import { givenBackIn, type GivenBack } from '../payments/queries'

/** Open balances on a date: invoices issued by then less what was applied by then. */
export const openOn = (tx: Tx, on: string) =>
  tx.rows<{ customerId: string; issueOn: string; dueOn: string; balanceMinor: number }>(
    `SELECT i.customer_id, i.issue_on, i.due_on,
      CAST(i.payable_minor - COALESCE(a.paid, 0) AS SIGNED) AS balanceMinor
    FROM invoices i
    LEFT JOIN (SELECT invoice_id, SUM(amount_minor) AS paid FROM allocations WHERE on_date <= ?
      GROUP BY invoice_id) a ON a.invoice_id = i.id
    WHERE i.booked_on <= ? AND i.state = 'open'
      AND i.payable_minor <> COALESCE(a.paid, 0)`,
    [on, on],
  )
/** A customer's invoices as they stood on a day: what was issued by then, and not paid by then. */
export const invoicesOn = (tx: Tx, customerId: string, on: string) =>
  tx.rows<{
    id: string
    number: string
    dueOn: string
    issueOn: string
    total: number
    balanceMinor: number
    work: string | null
  }>(
    `SELECT i.id, i.number, i.due_on, i.issue_on, i.total_minor AS total,
      CAST(i.payable_minor - COALESCE((SELECT SUM(a.amount_minor) FROM allocations a
        WHERE a.invoice_id = i.id AND a.on_date <= ?), 0) AS SIGNED) AS balanceMinor,
      (SELECT w.title FROM work_orders w WHERE w.id = i.work_order_id) AS work
    FROM invoices i
    WHERE i.customer_id = ? AND i.booked_on <= ? AND i.state = 'open'
    HAVING balanceMinor <> 0
    ORDER BY i.due_on, i.number`,
    [on, customerId, on],
  )
interface Credit {
  customerId: string
  amountMinor: number
}
const creditsIn = (on: string): ListIn => ({
  columns: 'c.customer_id, c.amount_minor',
  from: `(SELECT customer_id, CAST(SUM(amount) AS SIGNED) AS amount_minor FROM ( SELECT
      p.customer_id, p.amount_minor AS amount FROM payments p WHERE p.received_on <= ? AND
      (p.bounced_on IS NULL OR p.bounced_on > ?) UNION ALL SELECT p.customer_id, -a.amount_minor
      FROM allocations a JOIN payments p ON p.id = a.payment_id WHERE a.on_date <= ? AND
      p.received_on <= ?) x GROUP BY customer_id HAVING amount_minor <> 0) c`,
  values: [on, on, on, on],
  order: 'c.customer_id',
})
/** What stands beside the open invoices: credits, what the ledger says, and card payments that went back since. */
export const besideOpen = (tx: Tx, on: string, since: number) =>
  listsIn<{ credits: Credit; ledger: { sum: number }; givenBack: GivenBack }>(tx, {
    // Unapplied credits live in the deposits account: what is owed is receivable plus that (a liability, so negative).
    credits: creditsIn(on),
    ledger: balanceIn(['receivable', 'deposits'], on),
    givenBack: givenBackIn(since),
  })
/** As many as an IN list takes well. */
const AT_ONCE = 1000
/** Rows about some customers, however many these are: nothing is read beyond them, and nothing of theirs is left out. */
async function aboutAll<T>(
  customerIds: readonly string[],
  read: (some: string[]) => Promise<T[]>,
): Promise<T[]> {
  const rows: T[] = []
  for (let i = 0; i < customerIds.length; i += AT_ONCE)
    rows.push(...(await read(customerIds.slice(i, i + AT_ONCE))))
  return rows
}
/** How late these customers paid, in the last three years. */
export const paidInvoices = (tx: Tx, customerIds: readonly string[]) =>
  aboutAll(customerIds, (some) =>
    tx.rows<{ customerId: string; days: number }>(
      `SELECT customer_id, DATEDIFF(paid_on, due_on) AS days
      FROM invoices
      WHERE paid_on > DATE_SUB(CURDATE(), INTERVAL 3 YEAR)
        AND customer_id IN (${placeholders(some)})
      ORDER BY paid_on DESC`,
      some,
    ),
  )
export interface NoteRow {
  id: string
  customerId: string
  kind: 'promise' | 'dispute' | 'settled' | 'reminder' | 'no_answer' | 'note'
  amount: number | null
  onDate: string | null
  text: string
  notedAt: string
  notedOn: string
  who: string | null
}
const NOTE = `SELECT n.id, n.customer_id, n.kind, n.amount_minor AS amount, n.on_date, n.text,
    n.noted_at, n.noted_on, p.name AS who
  FROM collection_notes n
  LEFT JOIN people p ON p.id = n.noted_by`
export const notesUntil = (tx: Tx, on: string, customerIds: readonly string[]) =>
  aboutAll(customerIds, (some) =>
    tx.rows<NoteRow>(
      `${NOTE} WHERE n.noted_on <= ? AND n.customer_id IN (${placeholders(some)}) ORDER BY n.noted_at, n.id`,
      [on, ...some],
    ),
  )
/** What was said of a customer until a day, the latest first. */
export const notesOf = (tx: Tx, customerId: string, on: string) =>
  tx.rows<NoteRow>(
    `${NOTE} WHERE n.customer_id = ? AND n.noted_on <= ?
    ORDER BY n.noted_at DESC, n.id DESC LIMIT 100`,
    [customerId, on],
  )
export const insertNote = (
  tx: Tx,
  n: {
    id: string
    customerId: string
    kind: string
    amount: number | null
    onDate: string | null
    text: string
    by: string | null
    at: number
    on: string
  },
) =>
  tx.run('INSERT INTO collection_notes VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)', [
    n.id,
    n.customerId,
    n.kind,
    n.amount,
    n.onDate,
    n.text,
    n.by,
    sqlInstant(n.at),
    n.on,
  ])
export interface MoneyIn {
  customerId: string
  amount: number
  receivedOn: string
  createdAt: string
  bouncedOn: string | null
  backReason: BackReason | null
}
/** What came in from these customers since a day, and what came back lately. */
export const moneyIn = (tx: Tx, customerIds: readonly string[], since: string, until: string) =>
  aboutAll(customerIds, (some) =>
    tx.rows<MoneyIn>(
      `SELECT customer_id, amount_minor AS amount, received_on, created_at, bounced_on, back_reason
      FROM payments
      WHERE customer_id IN (${placeholders(some)})
        AND ((received_on BETWEEN ? AND ?) OR bounced_on > DATE_SUB(?, INTERVAL 30 DAY))`,
      [...some, since, until, until],
    ),
  )
export const siteCount = (tx: Tx, customerId: string) =>
  tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM sites WHERE customer_id = ?', [customerId])
