// SQL that what goes through all subjects runs for this one.
import type { Erasure } from '../subject'

// Answers that were kept for repeated requests repeat the person.
/** How a person's words are taken out. What a law makes the firm keep stays as it was sent. */
export const ERASURES: readonly Erasure[] = [
  `UPDATE trail
  SET data = NULL, text = 'taken out when the person asked for it'
  WHERE customer_id = ? OR work_order_id IN
    (SELECT id FROM work_orders WHERE customer_id = ?)
    OR subject_id = ?`,
  `UPDATE idempotency_keys SET answer = NULL WHERE answer LIKE CONCAT('%', ?, '%')`,
  `UPDATE idempotency_keys k
  JOIN (SELECT id FROM work_orders WHERE customer_id = ?) w ON k.answer LIKE CONCAT('%', w.id, '%')
  SET k.answer = NULL`,
]
