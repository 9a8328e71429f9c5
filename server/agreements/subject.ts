// What agreements tell the rest of the server about themselves.
import type { Subject } from '../subject'

export const agreements: Subject = {
  name: 'agreements',
  moves: {
    agreements: { one: 'care agreement', several: 'care agreements' },
  },
}
