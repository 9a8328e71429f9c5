// What dispatch tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { ERASURES } from './subject.queries'

export const dispatch: Subject = {
  name: 'dispatch',
  erases: ERASURES,
}
