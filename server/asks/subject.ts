// What the rest of the server knows of what is asked.
import type { Subject } from '../subject'
import { ERASURES } from './subject.queries'
import { WAITS } from './waiting.queries'

export const asks: Subject = {
  name: 'asks',
  moves: { asks: { one: 'question', several: 'questions' } },
  erases: ERASURES,
  waits: WAITS,
}
