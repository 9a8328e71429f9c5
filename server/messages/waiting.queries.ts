// SQL of where messages wait.
import { whereMessageStands, type MessageFacts } from '../../core/waiting/whereItStands'
import { waits, type Waiting, type Waits } from '../subject'

/** A later message of its kind about the same, which did not fail. */
const FOLLOWED = `EXISTS (SELECT 1 FROM messages o WHERE o.kind = m.kind AND o.customer_id <=>
    m.customer_id AND o.invoice_id <=> m.invoice_id AND o.quote_id <=> m.quote_id AND o.visit_id <=>
    m.visit_id AND o.created_at > m.created_at AND o.state <> 'failed')`
export const WAITS: readonly Waits[] = [
  waits<Waiting & MessageFacts & { nobody: number }>({
    kind: 'message',
    from: 'messages m',
    joins: 'LEFT JOIN customers c ON c.id = m.customer_id',
    id: 'm.id',
    columns: `m.subject AS label, COALESCE(c.name, '') AS whose, NULL AS sum, m.state, m.kind,
      m.error, (m.state = 'failed' AND ${FOLLOWED}) AS followed, (m.kind <> 'invoice' OR m.invoice_id
      IS NOT NULL) AS carried, JSON_LENGTH(m.recipients) = 0 AS nobody`,
    booleans: ['followed'],
    places: () => ({
      mail: [
        `(m.state = 'waiting' OR (m.state = 'failed' AND m.kind <> 'invoice' AND
          JSON_LENGTH(m.recipients) > 0 AND NOT ${FOLLOWED}))`,
      ],
    }),
    // Whoever was erased is written to no more.
    stands: (message) =>
      message.nobody && message.state === 'failed'
        ? { rest: 'nobody is to have it any more' }
        : whereMessageStands(message),
    to: () => '/messages',
  }),
]
