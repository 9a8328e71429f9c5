// SQL of invoices, their lines, payments on them, and messages about them.
import type { BackReason } from '../../core/payments/takingBack'
import { placeholders, sqlInstant, type Tx, type Value } from '../db/pool'
import { listRows } from '../db/queries'
import type { Finder } from '../db/search.queries'
import type { StoredInvoiceState } from '../../core/invoices/invoiceLifecycle'
import type { InvoicePaper } from '../../core/invoices/invoicePaper'
import { TO_SEND } from './waiting.queries'

export interface InvoiceRow {
  id: string
  number: string
  customerId: string
  workOrderId: string | null
  issueOn: string
  dueOn: string
  currency: string
  net: number
  tax: number
  total: number
  payable: number
  paid: number
  open: number
  sent: boolean
  state: StoredInvoiceState
  paper: InvoicePaper
  custom: Record<string, string>
  version: number
  /** of the list of open items by which it came */
  importId: string | null
  linkTurn: number
  linkUntil: string | null
}
const INVOICE = `i.id, i.number, i.customer_id, i.work_order_id, i.issue_on, i.due_on, i.currency,
    i.net_minor AS net, i.tax_minor AS tax, i.total_minor AS total, i.payable_minor AS payable,
    i.paid_minor AS paid, i.open_minor AS open, i.sent, i.state, i.frozen AS paper, i.custom,
    i.version, i.import_id, i.link_turn, IF(i.token_hash IS NULL, NULL, i.token_expires_at) AS linkUntil`
export async function invoiceById(tx: Tx, id: string, lock = false) {
  return await tx.row<InvoiceRow>(
    `SELECT ${INVOICE} FROM invoices i WHERE i.id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
}
export async function invoiceByToken(tx: Tx, hash: string, now: number) {
  return await tx.row<InvoiceRow>(
    `SELECT ${INVOICE} FROM invoices i WHERE i.token_hash = ? AND i.token_expires_at > ?`,
    [hash, sqlInstant(now)],
  )
}
export const insertInvoice = (
  tx: Tx,
  i: {
    id: string
    number: string
    run: number
    serial: number
    customerId: string
    workOrderId: string
    issueOn: string
    dueOn: string
    currency: string
    net: number
    tax: number
    total: number
    payable: number
    paper: InvoicePaper
    tokenHash: string
    tokenExpires: number
    now: number
  },
) =>
  tx.run(
    `INSERT INTO invoices (id, number, run, serial, customer_id, work_order_id, issue_on, due_on, currency,
      net_minor, tax_minor, total_minor, payable_minor, frozen, token_hash, token_expires_at,
      created_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      i.id,
      i.number,
      i.run,
      i.serial,
      i.customerId,
      i.workOrderId,
      i.issueOn,
      i.dueOn,
      i.currency,
      i.net,
      i.tax,
      i.total,
      i.payable,
      JSON.stringify(i.paper),
      i.tokenHash,
      sqlInstant(i.tokenExpires),
      sqlInstant(i.now),
    ],
  )
export const invoiceNumbers = (tx: Tx) =>
  tx.rows<{ id: string; number: string; createdAt: string }>(
    'SELECT id, number, created_at FROM invoices ORDER BY id',
  )
export const insertInvoiceLines = (tx: Tx, rows: Value[][]) =>
  tx.many(
    `INSERT INTO invoice_lines (id, invoice_id, work_line_id, position, kind, name, net_minor,
      cost_minor)
    VALUES ?`,
    rows,
  )
/** Another link, or none: the one before ends at once. */
export const setLink = (
  tx: Tx,
  id: string,
  link: { turn: number; tokenHash: string | null; until: number | null },
) =>
  tx.run(
    `UPDATE invoices
    SET link_turn = ?, token_hash = ?, token_expires_at = ?, version = version + 1
    WHERE id = ?`,
    [link.turn, link.tokenHash, link.until === null ? null : sqlInstant(link.until), id],
  )
export const markSent = (tx: Tx, id: string) =>
  tx.run('UPDATE invoices SET sent = TRUE, version = version + 1 WHERE id = ?', [id])
export const paymentsOfInvoice = (tx: Tx, id: string) =>
  tx.rows<{
    id: string
    number: string
    method: string
    reference: string
    on: string
    amount: number
    takenBack: BackReason | null
  }>(
    `SELECT p.id, p.number, p.method, p.reference, p.received_on AS \`on\`, a.amount,
      p.back_reason AS takenBack
    FROM (SELECT payment_id, CAST(SUM(IF(amount_minor > 0, amount_minor, 0)) AS SIGNED) AS amount
      FROM allocations WHERE invoice_id = ? GROUP BY payment_id) a
    JOIN payments p ON p.id = a.payment_id
    ORDER BY p.created_at, p.id`,
    [id],
  )
const STATES: Record<string, string> = {
  open: 'i.open_minor > 0',
  paid: 'i.open_minor = 0',
  overdue: 'i.open_minor > 0 AND i.due_on < ?',
  unsent: TO_SEND,
}
const WORDS: Finder[] = [
  { id: 'o.id', from: 'invoices o', words: 'o.number, o.own_words' },
  { id: 'o.id', from: 'customers k JOIN invoices o ON o.customer_id = k.id', words: 'k.search' },
]
const SORTS: Record<string, string> = { issued: 'i.issue_on', due: 'i.due_on' }
export async function invoicePage(
  tx: Tx,
  f: {
    q: string
    state?: string | undefined
    customerId?: string | undefined
    today: string
    sort: string
    descending: boolean
    limit: number
    after: [string, string] | null
  },
) {
  const where: string[] = []
  const values: Value[] = []
  if (f.state) {
    where.push(STATES[f.state]!)
    if (f.state === 'overdue') values.push(f.today)
  }
  if (f.customerId) {
    where.push('i.customer_id = ?')
    values.push(f.customerId)
  }
  return listRows<{
    id: string
    number: string
    customerId: string
    customer: string
    workOrderId: string | null
    workOrder: string | null
    issueOn: string
    dueOn: string
    total: number
    open: number
    paid: number
    sent: boolean
    state: StoredInvoiceState
  }>(tx, {
    select: `i.id, i.number, i.customer_id, c.name AS customer, i.work_order_id,
        w.number AS workOrder, i.issue_on, i.due_on, i.total_minor AS total, i.open_minor AS open,
        i.paid_minor AS paid, i.sent, i.state`,
    // In this order: left to itself the optimiser begins with the customers and sorts every invoice.
    from: `invoices i
      STRAIGHT_JOIN customers c ON c.id = i.customer_id
      LEFT JOIN work_orders w ON w.id = i.work_order_id`,
    countFrom: 'invoices i',
    where,
    values,
    search: { q: f.q, finders: WORDS, text: ['i.number', 'i.own_words', 'c.search'] },
    by: SORTS[f.sort] ?? 'i.issue_on',
    id: 'i.id',
    descending: f.descending,
    limit: f.limit,
    after: f.after,
  })
}
export const openInvoices = (tx: Tx, customerId: string, ids: string[] | null, lock: boolean) =>
  tx.rows<{
    id: string
    number: string
    dueOn: string
    issueOn: string
    /** the day on which it stands in our books */
    bookedOn: string
    total: number
    payable: number
    paid: number
    balanceMinor: number
    workOrderId: string | null
    work: string | null
    linkTurn: number
    linkUntil: string | null
  }>(
    `SELECT i.id, i.number, i.due_on, i.issue_on, i.booked_on, i.total_minor AS total,
      i.payable_minor AS payable, i.paid_minor AS paid, i.open_minor AS balanceMinor,
      i.work_order_id, i.link_turn, IF(i.token_hash IS NULL, NULL, i.token_expires_at) AS linkUntil,
      (SELECT w.title FROM work_orders w WHERE w.id = i.work_order_id) AS work
    FROM invoices i
    WHERE i.customer_id = ? AND i.open_minor > 0 ${ids ? `AND i.id IN (${placeholders(ids)})` : ''}
    ORDER BY i.due_on, i.number${lock ? ' FOR UPDATE' : ' LIMIT 500'}`,
    [customerId, ...(ids ?? [])],
  )
/** Whose these invoices are, and whether they are open. */
export const invoicesNamed = (tx: Tx, ids: string[]) =>
  tx.rows<{ id: string; number: string; customerId: string; open: number; state: string }>(
    `SELECT id, number, customer_id, open_minor AS open, state
    FROM invoices
    WHERE id IN (${placeholders(ids)})`,
    ids,
  )
export const setPaid = (tx: Tx, id: string, paid: number, paidOn: string | null) =>
  tx.run('UPDATE invoices SET paid_minor = ?, paid_on = ?, version = version + 1 WHERE id = ?', [
    paid,
    paidOn,
    id,
  ])
