// SQL that what goes through all subjects runs for this one.
import type { Erasure } from '../subject'

/** How a person's words are taken out. What a law makes the firm keep stays as it was sent. */
export const ERASURES: readonly Erasure[] = [
  `UPDATE messages
  SET recipients = '[]', subject = 'Taken out', body = '', error = '',
    state = IF(state = 'waiting', 'failed', state)
  WHERE customer_id = ?`,
]
