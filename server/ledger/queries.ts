// SQL of the double-entry ledger and of the checks that compare it with every sub-ledger.
import { ACCOUNTS, type AccountKey } from '../../core/ledger/accounts'
import type { Posting } from '../../core/ledger/entries'
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import type { ListIn } from '../db/queries'

export async function post(
  tx: Tx,
  entry: {
    on: string
    kind: string
    sourceId: string
    memo: string
    customerId: string | null
    postings: (Posting & { customerId?: string })[]
    at: number
  },
): Promise<void> {
  const { insertId } = await tx.run(
    'INSERT INTO ledger_entries (on_date, kind, source_id, memo, created_at) VALUES (?, ?, ?, ?, ?)',
    [entry.on, entry.kind, entry.sourceId, entry.memo.slice(0, 200), sqlInstant(entry.at)],
  )
  await tx.many(
    'INSERT INTO ledger_postings (entry_id, account, amount_minor, customer_id) VALUES ?',
    entry.postings.map((p) => [
      insertId,
      p.account,
      p.amountMinor,
      p.customerId ?? entry.customerId,
    ]),
  )
}
/** As many entries as there are things of one kind, each in the books of one customer. */
export async function postEach(
  tx: Tx,
  { on, kind, at }: { on: string; kind: string; at: number },
  entries: readonly {
    sourceId: string
    memo: string
    customerId: string | null
    postings: readonly Posting[]
  }[],
): Promise<void> {
  if (!entries.length) return
  await tx.many(
    'INSERT INTO ledger_entries (on_date, kind, source_id, memo, created_at) VALUES ?',
    entries.map((e) => [on, kind, e.sourceId, e.memo.slice(0, 200), sqlInstant(at)]),
  )
  const sources = entries.map(({ sourceId }) => sourceId)
  const kept = await tx.rows<{ id: number; sourceId: string }>(
    `SELECT id, source_id FROM ledger_entries WHERE kind = ? AND source_id IN (${placeholders(sources)})`,
    [kind, ...sources],
  )
  const ids = new Map(kept.map((row) => [row.sourceId, row.id]))
  await tx.many(
    'INSERT INTO ledger_postings (entry_id, account, amount_minor, customer_id) VALUES ?',
    entries.flatMap(({ sourceId, customerId, postings }) =>
      postings.map((p) => [ids.get(sourceId)!, p.account, p.amountMinor, customerId]),
    ),
  )
}
/** What was posted of one kind, account by account. */
export const postedAs = (tx: Tx, kind: string) =>
  tx.rows<Posting>(
    `SELECT p.account, CAST(SUM(p.amount_minor) AS SIGNED) AS amountMinor
    FROM ledger_postings p
    JOIN ledger_entries e ON e.id = p.entry_id AND e.kind = ?
    GROUP BY p.account
    HAVING SUM(p.amount_minor) <> 0`,
    [kind],
  )
/** The day of the last entry of one kind. */
export const lastPosted = async (tx: Tx, kind: string) =>
  (
    await tx.row<{ on: string }>(
      'SELECT on_date AS `on` FROM ledger_entries WHERE kind = ? ORDER BY id DESC LIMIT 1',
      [kind],
    )
  )?.on ?? null
/** What some accounts come to together on a date. */
export const balanceIn = (accounts: readonly AccountKey[], on: string): ListIn => ({
  columns: 'b.sum',
  from: `(SELECT CAST(COALESCE(SUM(p.amount_minor), 0) AS SIGNED) AS sum FROM ledger_postings p JOIN
      ledger_entries e ON e.id = p.entry_id WHERE p.account IN (${placeholders(accounts)}) AND
      e.on_date <= ?) b`,
  values: [...accounts, on],
  order: 'b.sum',
})
export const balances = (tx: Tx) =>
  tx.rows<{ account: AccountKey; sum: number }>(
    `SELECT account, CAST(SUM(amount_minor) AS SIGNED) AS sum
    FROM ledger_postings
    GROUP BY account
    ORDER BY account`,
  )
export interface JournalRow {
  id: number
  on: string
  kind: string
  memo: string
  account: AccountKey
  amount: number
}
export const journalRows = (tx: Tx) =>
  tx.each<JournalRow>(
    `SELECT e.id, e.on_date AS \`on\`, e.kind, e.memo, p.account, p.amount_minor AS amount
    FROM ledger_entries e
    JOIN ledger_postings p ON p.entry_id = e.id
    ORDER BY e.on_date, e.id, p.id`,
  )
export const accountName = (key: AccountKey): string => ACCOUNTS[key].name

/** Each check returns the rows that do not agree; an empty list is what is wanted. */
export const CHECKS: { name: string; sql: string }[] = [
  {
    name: 'every entry balances',
    sql: `SELECT e.id, e.kind, e.memo, CAST(SUM(p.amount_minor) AS SIGNED) AS difference
      FROM ledger_entries e
      LEFT JOIN ledger_postings p ON p.entry_id = e.id
      GROUP BY e.id, e.kind, e.memo
      HAVING COALESCE(SUM(p.amount_minor), 1) <> 0`,
  },
  {
    name: 'receivables of each customer',
    sql: `SELECT c.name, COALESCE(l.sum, 0) AS ledger, COALESCE(i.sum, 0) AS invoices
      FROM customers c
      LEFT JOIN (SELECT customer_id, SUM(amount_minor) AS sum FROM ledger_postings WHERE account =
        'receivable' GROUP BY customer_id) l ON l.customer_id = c.id
      LEFT JOIN (SELECT customer_id, SUM(open_minor) AS sum FROM invoices GROUP BY customer_id) i ON
        i.customer_id = c.id
      WHERE COALESCE(l.sum, 0) <> COALESCE(i.sum, 0)`,
  },
  {
    name: 'each invoice has its entry',
    sql: `SELECT i.number, i.total_minor AS invoice, l.sum AS ledger
      FROM invoices i
      LEFT JOIN (SELECT e.source_id, SUM(p.amount_minor) AS sum FROM ledger_entries e JOIN
        ledger_postings p ON p.entry_id = e.id AND p.account = 'receivable' WHERE e.kind = 'invoice'
        GROUP BY e.source_id) l ON l.source_id = i.id
      WHERE l.sum IS NULL OR l.sum <> i.payable_minor`,
  },
  {
    name: 'tax payable',
    sql: `SELECT x.ledger, y.invoices
      FROM (SELECT COALESCE(SUM(amount_minor), 0) AS ledger FROM ledger_postings p JOIN
        ledger_entries e ON e.id = p.entry_id AND e.kind NOT LIKE 'opening%' WHERE account = 'tax') x, (SELECT COALESCE(SUM(IF(payable_minor < total_minor, 0, tax_minor)), 0) AS
        invoices FROM invoices WHERE state <> 'void') y
      WHERE x.ledger + y.invoices <> 0`,
  },
  {
    name: 'each payment has its entry',
    sql: `SELECT y.number, y.amount_minor AS payment, l.sum AS ledger
      FROM payments y
      LEFT JOIN (SELECT e.source_id, SUM(p.amount_minor) AS sum FROM ledger_entries e JOIN
        ledger_postings p ON p.entry_id = e.id AND p.amount_minor > 0 WHERE e.kind = 'payment' GROUP
        BY e.source_id) l ON l.source_id = y.id
      WHERE l.sum IS NULL OR l.sum <> y.amount_minor`,
  },
  {
    name: 'cash, cheques, cards and bank',
    sql: `SELECT x.ledger, y.payments
      FROM (SELECT COALESCE(SUM(amount_minor), 0) AS ledger FROM ledger_postings p
        JOIN ledger_entries e ON e.id = p.entry_id AND e.kind NOT LIKE 'opening%' WHERE account IN
        ('cash', 'undeposited', 'card', 'bank')) x,
        (SELECT COALESCE(SUM(amount_minor), 0) AS payments FROM payments WHERE bounced_on IS NULL
        AND method <> 'credit') y
      WHERE x.ledger <> y.payments`,
  },
  {
    name: 'deposits are what is not applied',
    sql: `SELECT x.ledger, y.unapplied
      FROM (SELECT COALESCE(SUM(amount_minor), 0) AS ledger FROM ledger_postings WHERE account =
        'deposits') x, (SELECT (SELECT COALESCE(SUM(amount_minor), 0) FROM payments WHERE bounced_on
        IS NULL) - (SELECT COALESCE(SUM(amount_minor), 0) FROM allocations) AS unapplied) y
      WHERE x.ledger + y.unapplied <> 0`,
  },
  {
    name: 'paid on each invoice',
    sql: `SELECT i.number, i.paid_minor AS invoice, COALESCE(SUM(a.amount_minor), 0) AS allocations
      FROM invoices i
      LEFT JOIN allocations a ON a.invoice_id = i.id
      GROUP BY i.id, i.number, i.paid_minor
      HAVING i.paid_minor <> COALESCE(SUM(a.amount_minor), 0)`,
  },
  {
    name: 'lines of each invoice',
    sql: `SELECT i.number, i.net_minor AS invoice, SUM(l.net_minor) AS \`lines\`
      FROM invoices i
      JOIN invoice_lines l ON l.invoice_id = i.id
      WHERE JSON_VALUE(i.frozen, '$.taxMode') <> 'included'
      GROUP BY i.id, i.number, i.net_minor
      HAVING i.net_minor <> SUM(l.net_minor)`,
  },
  {
    name: 'invoice numbers have no gaps',
    // Within a run: a series that was changed goes on as another.
    sql: `SELECT run, COUNT(*) AS invoices, MIN(serial) AS first, MAX(serial) AS last
      FROM invoices
      WHERE serial IS NOT NULL
      GROUP BY run
      HAVING last - first + 1 <> invoices`,
  },
]
export const runCheck = (tx: Tx, sql: string) => tx.rows<Record<string, unknown>>(sql)
