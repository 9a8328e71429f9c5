// SQL of what is unpaid: balances as they stood on a date, habits, and what was said.
import { sqlInstant, type Tx } from '../db/pool'

/** Open balances on a date: invoices issued by then less what was applied by then. */
export const openOn = (tx: Tx, on: string) => tx.rows<{ customerId: string, dueOn: string, balanceMinor: number }>(
  `SELECT i.customer_id AS customerId, i.due_on AS dueOn, CAST(i.payable_minor - COALESCE(a.paid, 0) AS SIGNED) AS balanceMinor FROM invoices i
   LEFT JOIN (SELECT invoice_id, SUM(amount_minor) AS paid FROM allocations WHERE on_date <= ? GROUP BY invoice_id) a ON a.invoice_id = i.id
   WHERE i.issue_on <= ? AND i.state = 'open' AND i.payable_minor <> COALESCE(a.paid, 0)`, [on, on])
export const creditsOn = (tx: Tx, on: string) => tx.rows<{ customerId: string, amountMinor: number }>(
  `SELECT customerId, CAST(SUM(amount) AS SIGNED) AS amountMinor FROM (
     SELECT p.customer_id AS customerId, p.amount_minor AS amount FROM payments p WHERE p.received_on <= ? AND (p.bounced_on IS NULL OR p.bounced_on > ?)
     UNION ALL SELECT p.customer_id, -a.amount_minor FROM allocations a JOIN payments p ON p.id = a.payment_id WHERE a.on_date <= ? AND p.received_on <= ?) x GROUP BY customerId HAVING amountMinor <> 0`, [on, on, on, on])
export const paidInvoices = (tx: Tx) => tx.rows<{ customerId: string, days: number }>('SELECT customer_id AS customerId, DATEDIFF(paid_on, due_on) AS days FROM invoices WHERE paid_on IS NOT NULL ORDER BY paid_on DESC LIMIT 20000')
export interface NoteRow { id: string, customerId: string, kind: 'promise' | 'dispute' | 'settled' | 'reminder' | 'no_answer' | 'note', amount: number | null, onDate: string | null, text: string, notedAt: string, notedOn: string, who: string | null }
const NOTE = 'SELECT n.id, n.customer_id AS customerId, n.kind, n.amount_minor AS amount, n.on_date AS onDate, n.text, n.noted_at AS notedAt, n.noted_on AS notedOn, p.name AS who FROM collection_notes n LEFT JOIN people p ON p.id = n.noted_by'
export const notesUntil = (tx: Tx, on: string) => tx.rows<NoteRow>(`${NOTE} WHERE n.noted_on <= ? ORDER BY n.noted_at, n.id LIMIT 20000`, [on])
export const notesOf = (tx: Tx, customerId: string) => tx.rows<NoteRow>(`${NOTE} WHERE n.customer_id = ? ORDER BY n.noted_at DESC, n.id DESC LIMIT 100`, [customerId])
export const insertNote = (tx: Tx, n: { id: string, customerId: string, kind: string, amount: number | null, onDate: string | null, text: string, by: string | null, at: number, on: string }) => tx.run(
  'INSERT INTO collection_notes VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)', [n.id, n.customerId, n.kind, n.amount, n.onDate, n.text, n.by, sqlInstant(n.at), n.on])
export const paidSince = (tx: Tx, customerId: string, from: string, to: string) => tx.row<{ sum: number }>('SELECT CAST(COALESCE(SUM(amount_minor), 0) AS SIGNED) AS sum FROM payments WHERE customer_id = ? AND bounced_on IS NULL AND received_on BETWEEN ? AND ?', [customerId, from, to])
export const bouncedCustomers = (tx: Tx, on: string) => tx.rows<{ customerId: string }>('SELECT DISTINCT customer_id AS customerId FROM payments WHERE bounced_on IS NOT NULL AND bounced_on <= ? AND bounced_on > DATE_SUB(?, INTERVAL 30 DAY)', [on, on])
export const siteCount = (tx: Tx, customerId: string) => tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM sites WHERE customer_id = ?', [customerId])
