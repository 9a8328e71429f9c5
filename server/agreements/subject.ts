// What agreements tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { WAITS } from './waiting.queries'

export const agreements: Subject = {
  name: 'agreements',
  moves: {
    agreements: { one: 'care agreement', several: 'care agreements' },
  },
  waits: WAITS,
}
