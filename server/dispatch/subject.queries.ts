// SQL that what goes through all subjects runs for this one.
import type { Erasure } from '../subject'

/** How a person's words are taken out. What a law makes the firm keep stays as it was sent. */
export const ERASURES: readonly Erasure[] = [
  `UPDATE day_plans d
  JOIN (SELECT v.id FROM visits v JOIN work_orders w ON w.id = v.work_order_id WHERE w.customer_id =
    ?) x ON d.result LIKE CONCAT('%', x.id, '%')
  SET d.result = NULL`,
]
