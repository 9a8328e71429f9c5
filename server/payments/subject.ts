// What payments tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { EXPORTS, FINDING } from './subject.queries'
import { WAITS } from './waiting.queries'

export const payments: Subject = {
  name: 'payments',
  moves: {
    payments: { one: 'payment', several: 'payments' },
  },
  finds: [FINDING],
  exports: EXPORTS,
  waits: WAITS,
}
