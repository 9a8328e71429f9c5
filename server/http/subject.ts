// What the trail and kept answers tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { ERASURES } from './subject.queries'

export const trail: Subject = {
  name: 'trail',
  erases: ERASURES,
}
