// SQL that what goes through all subjects runs for this one.
import type { Erasure, Export, Finding } from '../subject'

/** How a person's words are taken out. What a law makes the firm keep stays as it was sent. */
export const ERASURES: readonly Erasure[] = [
  `UPDATE invoices SET custom = '{}', own_words = '' WHERE customer_id = ?`,
]

/** What the one search finds: by words that begin theirs, by a number of ours or of theirs. */
export const FINDING: Finding = {
  kind: 'invoice',
  sql: `SELECT 'invoice' AS kind, i.id, i.number AS title, c.name AS detail
    FROM invoices i
    JOIN customers c ON c.id = i.customer_id
    WHERE i.id IN (SELECT id FROM (SELECT id FROM invoices WHERE MATCH(number, own_words) AGAINST (?
      IN BOOLEAN MODE) UNION SELECT id FROM invoices WHERE number LIKE ?) f)
    ORDER BY i.issue_on DESC LIMIT 6`,
  values: ({ words, number }) => [words, number],
  to: (id) => `/invoices/${id}`,
}

/** What can be taken along as CSV. */
export const EXPORTS: Readonly<Record<string, Export>> = {
  invoices: {
    columns: ['number', 'customer', 'issued', 'due', 'currency', 'net', 'tax', 'total', 'open'],
    sql: `SELECT i.number, c.name AS customer, i.issue_on AS issued, i.due_on AS due, i.currency,
        i.net_minor AS net, i.tax_minor AS tax, i.total_minor AS total, i.open_minor AS open,
        i.custom
      FROM invoices i
      JOIN customers c ON c.id = i.customer_id
      ORDER BY i.number`,
    money: new Set(['net', 'tax', 'total', 'open']),
    fieldsOf: 'invoice',
  },
}
