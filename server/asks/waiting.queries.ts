// SQL of where what is asked waits.
import { whereAskStands, type AskFacts } from '../../core/waiting/whereItStands'
import { waits, type Waiting, type Waits } from '../subject'

export const WAITS: readonly Waits[] = [
  waits<Waiting & AskFacts & { workOrderId: string | null; quoteId: string | null }>({
    kind: 'ask',
    from: 'asks a',
    joins:
      'LEFT JOIN work_orders o ON o.id = a.work_order_id LEFT JOIN quotes q ON q.id = a.quote_id JOIN customers c ON c.id = a.customer_id',
    id: 'a.id',
    columns: `CONCAT(COALESCE(q.number, o.number), ' ', a.what) AS label, c.name AS whose, NULL AS sum, a.state, a.reason,
      (SELECT p.name FROM people p WHERE p.id = a.asked_by) AS askedBy, a.work_order_id, a.quote_id, TRUE AS carried`,
    places: () => ({ asks: [`a.state = 'asked'`] }),
    stands: (ask) => whereAskStands(ask),
    to: ({ workOrderId, quoteId }) => (quoteId ? `/quotes/${quoteId}` : `/work/${workOrderId}`),
  }),
]
