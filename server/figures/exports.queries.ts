// SQL of the tables that can be taken along.
import type { Tx } from '../db/pool'

interface Export {
  /** the headings, in the order of the columns; `custom` holds the firm's own fields */
  columns: string[]
  sql: string
  /** columns that hold money */
  money: ReadonlySet<string>
  /** whose own fields stand in `custom` */
  fieldsOf: string | null
}
export const EXPORTS: Record<string, Export> = {
  invoices: {
    columns: ['number', 'customer', 'issued', 'due', 'currency', 'net', 'tax', 'total', 'open'],
    sql: `SELECT i.number, c.name AS customer, i.issue_on AS issued, i.due_on AS due, i.currency, i.net_minor AS net, i.tax_minor AS tax, i.total_minor AS total, i.open_minor AS open, i.custom
      FROM invoices i JOIN customers c ON c.id = i.customer_id ORDER BY i.number`,
    money: new Set(['net', 'tax', 'total', 'open']),
    fieldsOf: 'invoice',
  },
  'work-orders': {
    columns: [
      'number',
      'title',
      'kind',
      'state',
      'customer',
      'site_address',
      'site_town',
      'their_order',
      'created',
      'to_bill',
    ],
    sql: `SELECT w.number, w.title, w.kind, w.state, c.name AS customer, s.line1 AS site_address, s.town AS site_town, w.order_number AS their_order, DATE(w.created_at) AS created,
      w.to_bill_minor AS to_bill, w.custom FROM work_orders w JOIN customers c ON c.id = w.customer_id JOIN sites s ON s.id = w.site_id ORDER BY w.number`,
    money: new Set(['to_bill']),
    fieldsOf: 'work_order',
  },
  payments: {
    columns: ['number', 'customer', 'received', 'method', 'reference', 'amount', 'bounced'],
    sql: `SELECT p.number, c.name AS customer, p.received_on AS received, p.method, p.reference, p.amount_minor AS amount, p.bounced_on AS bounced
      FROM payments p JOIN customers c ON c.id = p.customer_id ORDER BY p.number`,
    money: new Set(['amount']),
    fieldsOf: null,
  },
}
export const rowsFor = (tx: Tx, what: Export) =>
  tx.each<Record<string, string | number | null>>(what.sql)
