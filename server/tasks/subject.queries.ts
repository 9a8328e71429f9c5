// SQL that what goes through all subjects runs for this one.
import type { Erasure } from '../subject'

export const ERASURES: readonly Erasure[] = [
  `UPDATE tasks SET what = 'taken out' WHERE customer_id = ?`,
]
