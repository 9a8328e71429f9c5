// SQL that what goes through all subjects runs for this one.
import type { Erasure, Finding } from '../subject'

/** How a person's words are taken out. What a law makes the firm keep stays as it was sent; what calls were about, and how they heard of us, is counted on. */
export const ERASURES: readonly Erasure[] = [
  `UPDATE calls
  SET draft = JSON_OBJECT('about', COALESCE(JSON_VALUE(draft, '$.about'), 'new_work'), 'kind',
      COALESCE(JSON_VALUE(draft, '$.kind'), ''), 'source', COALESCE(JSON_VALUE(draft, '$.source'), '')), summary = 'Taken out', reason = ''
  WHERE JSON_VALUE(draft, "$.customerId") = ?
    OR work_order_id IN (SELECT id FROM work_orders WHERE customer_id = ?)
    OR quote_id IN (SELECT id FROM quotes WHERE customer_id = ?)`,
]

/** What the one search finds: by words that begin theirs, by a number of ours or of theirs. */
export const FINDING: Finding = {
  kind: 'call',
  sql: `SELECT 'call' AS kind, k.id, k.summary AS title,
      IF(k.state = 'put_off', 'to call back', 'half-filled') AS detail
    FROM calls k
    WHERE k.state IN ('open', 'put_off')
      AND k.summary LIKE ?
    ORDER BY k.created_at DESC LIMIT 4`,
  values: ({ number }) => [`%${number}`],
  to: (id) => `/calls/${id}`,
}
