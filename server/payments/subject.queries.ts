// SQL that what goes through all subjects runs for this one.
import type { Export, Finding } from '../subject'

/** What the one search finds: by words that begin theirs, by a number of ours or of theirs. */
export const FINDING: Finding = {
  kind: 'receipt',
  sql: `SELECT 'receipt' AS kind, p.customer_id AS id, p.number AS title, c.name AS detail
    FROM payments p
    JOIN customers c ON c.id = p.customer_id
    WHERE p.id IN (SELECT id FROM (SELECT id FROM payments WHERE MATCH(number, reference) AGAINST (?
      IN BOOLEAN MODE) UNION SELECT id FROM payments WHERE number LIKE ?) f) LIMIT 4`,
  values: ({ words, number }) => [words, number],
  to: (id) => `/customers/${id}#payments`,
}

/** What can be taken along as CSV. */
export const EXPORTS: Readonly<Record<string, Export>> = {
  payments: {
    columns: ['number', 'customer', 'received', 'method', 'reference', 'amount', 'bounced'],
    sql: `SELECT p.number, c.name AS customer, p.received_on AS received, p.method, p.reference,
        p.amount_minor AS amount, p.bounced_on AS bounced
      FROM payments p
      JOIN customers c ON c.id = p.customer_id
      ORDER BY p.number`,
    money: new Set(['amount']),
    fieldsOf: null,
  },
}
