// What calls tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { ERASURES, FINDING } from './subject.queries'
import { WAITS } from './waiting.queries'

export const calls: Subject = {
  name: 'calls',
  erases: ERASURES,
  finds: [FINDING],
  waits: WAITS,
}
