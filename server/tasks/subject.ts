// What the rest of the server knows of tasks.
import type { Subject } from '../subject'
import { ERASURES } from './subject.queries'
import { WAITS } from './waiting.queries'

export const tasks: Subject = {
  name: 'tasks',
  moves: { tasks: { one: 'task', several: 'tasks' } },
  erases: ERASURES,
  waits: WAITS,
}
