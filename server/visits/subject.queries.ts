// SQL that what goes through all subjects runs for this one.
import type { Erasure, Export, Finding } from '../subject'

// That somebody signed, and for what, stays; who it was, and the hand, do not.
/** How a person's words are taken out. What a law makes the firm keep stays as it was sent. */
export const ERASURES: readonly Erasure[] = [
  `UPDATE work_orders
  SET contact = '{"name":"","phone":""}', other_contacts = '[]', office_note = '', details = '{}', own_words = '', answers = '[]',
    problem = 'taken out', title = 'taken out', order_number = '', printed_note = '', custom = '{}',
    follow_up = '', follow_up_reason = '', source = ''
  WHERE customer_id = ?`,
  `UPDATE visits
  SET findings = '', note = ''
  WHERE work_order_id IN (SELECT id FROM work_orders WHERE customer_id = ?)`,
  `UPDATE signatures
  SET name = 'taken out', image = '', shown = '{}'
  WHERE work_order_id IN (SELECT id FROM work_orders WHERE customer_id = ?)`,
  `DELETE FROM photos WHERE work_order_id IN (SELECT id FROM work_orders WHERE customer_id = ?)`,
]

/** What the one search finds: by words that begin theirs, of what is wrong and of what was found, by a number of ours or of theirs. */
export const FINDING: Finding = {
  kind: 'work',
  sql: `SELECT 'work' AS kind, w.id, CONCAT(w.number, ' ', w.title) AS title, IF(w.order_number =
      '', c.name, CONCAT(c.name, ', their order ', w.order_number)) AS detail
    FROM work_orders w
    JOIN customers c ON c.id = w.customer_id
    WHERE w.id IN (SELECT id FROM (SELECT id FROM work_orders WHERE MATCH(number, title,
      order_number, own_words) AGAINST (? IN BOOLEAN MODE) UNION SELECT id FROM work_orders WHERE
      MATCH(problem) AGAINST (? IN BOOLEAN MODE) UNION SELECT work_order_id FROM visits WHERE
      MATCH(findings) AGAINST (? IN BOOLEAN MODE) UNION SELECT id FROM work_orders WHERE
      number LIKE ?) f)
    ORDER BY w.created_at DESC LIMIT 6`,
  values: ({ words, number }) => [words, words, words, number],
  to: (id) => `/work/${id}`,
}

/** What can be taken along as CSV. */
export const EXPORTS: Readonly<Record<string, Export>> = {
  'work-orders': {
    columns: [
      'number',
      'title',
      'kind',
      'source',
      'state',
      'customer',
      'site_address',
      'site_town',
      'their_order',
      'created',
      'to_bill',
    ],
    sql: `SELECT w.number, w.title, w.kind, w.source, w.state, c.name AS customer, s.line1 AS site_address,
        s.town AS site_town, w.order_number AS their_order, DATE(w.created_at) AS created,
        w.to_bill_minor AS to_bill, w.custom
      FROM work_orders w
      JOIN customers c ON c.id = w.customer_id
      JOIN sites s ON s.id = w.site_id
      ORDER BY w.number`,
    money: new Set(['to_bill']),
    fieldsOf: 'work_order',
  },
}
