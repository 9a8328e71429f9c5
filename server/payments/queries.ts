// SQL of payments, what they are applied to, and card charges.
import type { BackReason, Method } from '../../core/payments/takingBack'
import type { ChargeState } from '../../shared/payments'
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import { listRows, type ListIn } from '../db/queries'
import type { Finder } from '../db/search.queries'

export interface PaymentRow {
  id: string
  number: string
  customerId: string
  method: Method
  reference: string
  amount: number
  on: string
  bouncedOn: string | null
  backReason: BackReason | null
}
export const insertPayment = (
  tx: Tx,
  p: Omit<PaymentRow, 'bouncedOn' | 'backReason'> & { by: string | null; at: number },
) =>
  tx.run(
    `INSERT INTO payments (id, number, customer_id, method, reference, amount_minor, received_on,
      taken_by, created_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [p.id, p.number, p.customerId, p.method, p.reference, p.amount, p.on, p.by, sqlInstant(p.at)],
  )
export const paymentById = (tx: Tx, id: string) =>
  tx.row<PaymentRow>(
    `SELECT id, number, customer_id, method, reference, amount_minor AS amount,
      received_on AS \`on\`, bounced_on, back_reason
    FROM payments
    WHERE id = ? FOR UPDATE`,
    [id],
  )
export const insertAllocation = (
  tx: Tx,
  a: { id: string; paymentId: string; invoiceId: string; amount: number; on: string },
) =>
  tx.run(
    'INSERT INTO allocations (id, payment_id, invoice_id, amount_minor, on_date) VALUES (?, ?, ?, ?, ?)',
    [a.id, a.paymentId, a.invoiceId, a.amount, a.on],
  )
export const allocationsOf = (tx: Tx, paymentId: string) =>
  tx.rows<{ invoiceId: string; amount: number }>(
    `SELECT invoice_id, CAST(SUM(amount_minor) AS SIGNED) AS amount
    FROM allocations
    WHERE payment_id = ?
    GROUP BY invoice_id
    HAVING SUM(amount_minor) <> 0`,
    [paymentId],
  )
export const markTakenBack = (tx: Tx, id: string, on: string, why: BackReason) =>
  tx.run('UPDATE payments SET bounced_on = ?, back_reason = ? WHERE id = ?', [on, why, id])
export interface PaymentOfCustomer {
  id: string
  number: string
  method: Method
  reference: string
  on: string
  amount: number
  backReason: BackReason | null
  /** the invoices that it paid */
  invoices: string | null
  /** of it on no invoice */
  left: number
}
/** What a customer paid, the latest first, and what it paid. */
export const paymentsOfIn = (customerId: string): ListIn => ({
  columns: `p.id, p.number, p.method, p.reference, p.received_on AS \`on\`, p.amount_minor AS amount,
      p.back_reason, (SELECT GROUP_CONCAT(DISTINCT i.number ORDER BY i.number SEPARATOR ', ') FROM
      allocations a JOIN invoices i ON i.id = a.invoice_id WHERE a.payment_id = p.id) AS invoices,
      IF(p.bounced_on IS NULL, p.amount_minor - (SELECT CAST(COALESCE(SUM(a.amount_minor), 0) AS
      SIGNED) FROM allocations a WHERE a.payment_id = p.id), 0) AS \`left\``,
  from: 'payments p WHERE p.customer_id = ?',
  values: [customerId],
  order: 'p.received_on DESC, p.id DESC',
  limit: 40,
})
const WORDS: Finder[] = [
  { id: 'o.id', from: 'payments o', words: 'o.number, o.reference' },
  { id: 'o.id', from: 'customers k JOIN payments o ON o.customer_id = k.id', words: 'k.search' },
]
export async function paymentPage(
  tx: Tx,
  f: { q: string; limit: number; after: [string, string] | null; descending: boolean },
) {
  return listRows<PaymentRow & { customer: string; takenBy: string | null }>(tx, {
    select: `p.id, p.number, c.name AS customer, p.method, p.reference, p.amount_minor AS amount,
        p.received_on AS \`on\`, p.bounced_on, p.back_reason, t.name AS takenBy`,
    from: `payments p
      STRAIGHT_JOIN customers c ON c.id = p.customer_id
      LEFT JOIN people t ON t.id = p.taken_by`,
    where: [],
    values: [],
    search: { q: f.q, finders: WORDS, text: ['p.number', 'p.reference', 'c.search'] },
    by: 'p.received_on',
    id: 'p.id',
    descending: f.descending,
    limit: f.limit,
    after: f.after,
  })
}
export interface ChargeRow {
  id: string
  invoiceId: string
  amount: number
  state: ChargeState
  reference: string
  reason: string
}
const CHARGE =
  'id, invoice_id, amount_minor AS amount, state, terminal_reference AS reference, reason'
export const insertCharge = (
  tx: Tx,
  c: { id: string; invoiceId: string; amount: number; at: number },
) =>
  tx.run(
    'INSERT INTO card_charges (id, invoice_id, amount_minor, state, created_at) VALUES (?, ?, ?, "asked", ?)',
    [c.id, c.invoiceId, c.amount, sqlInstant(c.at)],
  )
export const chargeById = (tx: Tx, id: string) =>
  tx.row<ChargeRow>(`SELECT ${CHARGE} FROM card_charges WHERE id = ? FOR UPDATE`, [id])
/** The charge that is open for this very amount; the invoice's row is locked by the caller. */
export const askedCharge = (tx: Tx, invoiceId: string, amount: number) =>
  tx.row<ChargeRow>(
    `SELECT ${CHARGE}
    FROM card_charges
    WHERE invoice_id = ? AND state = 'asked' AND amount_minor = ?
    ORDER BY created_at DESC LIMIT 1`,
    [invoiceId, amount],
  )
export const settleCharge = (
  tx: Tx,
  c: {
    id: string
    state: ChargeState
    reference: string
    reason: string
    paymentId: string | null
    at: number
  },
) =>
  tx.run(
    `UPDATE card_charges
    SET state = ?, terminal_reference = ?, reason = ?, payment_id = ?, settled_at = ?
    WHERE id = ?`,
    [c.state, c.reference, c.reason.slice(0, 120), c.paymentId, sqlInstant(c.at), c.id],
  )
/** Card payments that were given back, or are on their way back, since a moment. */
export interface GivenBack {
  id: string
  invoiceId: string
  customerId: string
  name: string
  at: string
  number: string
  amount: number
  state: ChargeState
}
export const givenBackIn = (since: number): ListIn => ({
  columns: `k.id, k.invoice_id, i.number, i.customer_id, c.name, k.amount_minor AS amount, k.state,
      k.settled_at AS at`,
  from: `card_charges k
    JOIN invoices i ON i.id = k.invoice_id
    JOIN customers c ON c.id = i.customer_id
    WHERE k.state = 'refunding' OR (k.state = 'refunded' AND k.settled_at > ?)`,
  values: [sqlInstant(since)],
  order: 'k.settled_at DESC',
  limit: 50,
  instants: ['at'],
})
/** Payments that are applied to any of these invoices. */
export const paymentsTouching = (tx: Tx, invoiceIds: string[]) =>
  tx.rows<{ id: string; number: string }>(
    `SELECT DISTINCT p.id, p.number
    FROM payments p
    JOIN allocations a ON a.payment_id = p.id
    WHERE a.invoice_id IN (${placeholders(invoiceIds)})`,
    invoiceIds,
  )
