// SQL that what goes through all subjects runs for this one.
import type { Erasure, Finding } from '../subject'

// An offer that nobody accepted is no paper that must stay.
/** How a person's words are taken out. What a law makes the firm keep stays as it was sent. */
export const ERASURES: readonly Erasure[] = [
  `UPDATE quotes
  SET contact = '{"name":"","phone":""}', answers = '[]', title = 'taken out', scope = '', order_number = '',
    source = '', answer = '', token_hash = NULL, frozen = IF(state = 'accepted', frozen, NULL), version = version + 1
  WHERE customer_id = ?`,
]

/** What the one search finds: by words that begin theirs, by a number of ours or of theirs. */
export const FINDING: Finding = {
  kind: 'quote',
  sql: `SELECT 'quote' AS kind, q.id, CONCAT(q.number, ' ', q.title) AS title, c.name AS detail
    FROM quotes q
    JOIN customers c ON c.id = q.customer_id
    WHERE q.id IN (SELECT id FROM (SELECT id FROM quotes WHERE MATCH(number, title, order_number)
      AGAINST (? IN BOOLEAN MODE) UNION SELECT id FROM quotes WHERE number LIKE ?) f)
    ORDER BY q.created_at DESC LIMIT 6`,
  values: ({ words, number }) => [words, number],
  to: (id) => `/quotes/${id}`,
}
