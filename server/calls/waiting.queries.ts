// SQL of where calls wait.
import { whereCallStands, type CallFacts } from '../../core/waiting/whereItStands'
import { waits, type Waiting, type Waits } from '../subject'

export const WAITS: readonly Waits[] = [
  waits<Waiting & CallFacts>({
    kind: 'call',
    from: 'calls k',
    joins: '',
    id: 'k.id',
    columns: `k.summary AS label, '' AS whose, NULL AS sum, k.state, k.origin, k.call_back_on,
      k.reason, CASE k.state WHEN 'booked' THEN k.work_order_id IS NOT NULL WHEN 'quoted' THEN
      k.quote_id IS NOT NULL ELSE TRUE END AS carried`,
    places: ({ today }) => ({
      calls: [
        `(k.state = 'open' OR (k.state = 'put_off' AND COALESCE(k.call_back_on, ?) <= ?))`,
        today,
        today,
      ],
      put_off: [`k.state = 'put_off' AND k.call_back_on > ?`, today],
    }),
    stands: whereCallStands,
    to: ({ id }) => `/calls/${id}`,
  }),
]
