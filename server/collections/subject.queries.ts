// SQL that what goes through all subjects runs for this one.
import type { Erasure } from '../subject'

/** How a person's words are taken out. What a law makes the firm keep stays as it was sent. */
export const ERASURES: readonly Erasure[] = [
  `UPDATE collection_notes SET text = '' WHERE customer_id = ?`,
]
