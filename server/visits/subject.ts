// What visits tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { ERASURES, EXPORTS, FINDING } from './subject.queries'
import { WAITS } from './waiting.queries'

export const visits: Subject = {
  name: 'visits',
  moves: {
    work_orders: { one: 'work order', several: 'work orders' },
  },
  erases: ERASURES,
  finds: [FINDING],
  exports: EXPORTS,
  waits: WAITS,
}
