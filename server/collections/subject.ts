// What collections tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { ERASURES } from './subject.queries'

export const collections: Subject = {
  name: 'collections',
  moves: {
    collection_notes: { one: 'collection note', several: 'collection notes' },
  },
  erases: ERASURES,
}
