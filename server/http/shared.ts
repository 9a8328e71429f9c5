// Answers that are the same for everybody who may ask: when one person acts, twenty screens ask the same question in the same moment.
// One of them is worked out, the others are handed what it says. Any write ends it, so that nobody reads what was before their own act.
import { nowMs } from './clock'
import { bus } from './queries'

const OLDEST_MS = 1000
let kept = new Map<string, { at: number, text: Promise<string> }>()
export const forgetShared = (): void => { kept = new Map() }
bus.on('change', forgetShared)
bus.on('moved', forgetShared)

/** The answer to a question as JSON: the one under way or just given, or a new one. A question that failed is asked again. */
export function sharedAnswer(question: string, work: () => Promise<unknown>): Promise<string> {
  // The clock is part of the question: expected times follow it.
  const key = `${Math.floor(nowMs('UTC') / 1000)} ${question}`
  const known = kept.get(key)
  if (known && performance.now() - known.at < OLDEST_MS) return known.text
  const mine = kept
  const text = work().then(answer => JSON.stringify(answer))
  mine.set(key, { at: performance.now(), text })
  text.catch(() => mine.delete(key))
  return text
}
