// What happens to tasks, and how the history says it.
import { facts, type Change } from '../http/facts'

interface Task {
  what: string
  owner: string
  on: string | null
}
type Day = { day: (date: string) => string }
const by = (on: string | null, say: Day) => (on ? `, by ${say.day(on)}` : '')
export const taskFacts = facts('task', {
  given: (f: Task, say) => `To do by ${f.owner}${by(f.on, say)}: ${f.what}`,
  changed: (f: Task & { changes: Record<string, Change> }, say) =>
    `To do now by ${f.owner}${by(f.on, say)}: ${f.what}`,
  done: (f: Task) => `Done: ${f.what}`,
  undone: (f: Task) => `Not done after all: ${f.what}`,
})
