// What messages tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { ERASURES } from './subject.queries'
import { WAITS } from './waiting.queries'

export const messages: Subject = {
  name: 'messages',
  moves: {
    messages: { one: 'mail', several: 'mails' },
  },
  erases: ERASURES,
  waits: WAITS,
}
