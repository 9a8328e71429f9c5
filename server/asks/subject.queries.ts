// SQL that what goes through all subjects runs for this one.
import type { Erasure } from '../subject'

export const ERASURES: readonly Erasure[] = [
  `UPDATE asks SET what = 'taken out', reason = '', answer = '', body = '{}' WHERE customer_id = ?`,
]
