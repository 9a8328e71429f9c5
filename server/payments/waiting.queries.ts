// SQL of where money waits that no invoice took.
import { whereCreditStands } from '../../core/waiting/whereItStands'
import { waits, type Waiting, type Waits } from '../subject'

/** What each customer paid and no invoice took, as it stands now. */
const UNAPPLIED = `(SELECT customer_id, CAST(SUM(amount) AS SIGNED) AS amount FROM (
    SELECT customer_id, amount_minor AS amount FROM payments WHERE bounced_on IS NULL
    UNION ALL
    SELECT p.customer_id, -a.amount_minor FROM allocations a JOIN payments p ON p.id = a.payment_id
  ) x GROUP BY customer_id HAVING SUM(amount) <> 0)`
export const WAITS: readonly Waits[] = [
  waits<Waiting>({
    kind: 'credit',
    from: `${UNAPPLIED} k`,
    joins: 'JOIN customers c ON c.id = k.customer_id',
    id: 'k.customer_id',
    columns: 'c.name AS label, c.name AS whose, k.amount AS sum, TRUE AS carried',
    sum: 'k.amount',
    places: () => ({ credits: ['k.amount <> 0'] }),
    stands: ({ sum }) => whereCreditStands(sum ?? 0),
    to: ({ id }) => `/customers/${id}`,
  }),
]
