// Answers that are the same for everybody who may ask: when one person acts, twenty screens ask the same question in the same moment.
// One of them is worked out, the others are handed what it says. Any write ends it, so that nobody reads what was before their own act.
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import { nowMs } from './clock'
import { bus } from './queries'

const packed = promisify(gzip) as (text: string, options: { level: number }) => Promise<Buffer>
/** An answer as it is sent; compressed at most once, however many take it. */
export interface Sendable { text: string, gzip(): Promise<Buffer> }
export function sendable(answer: unknown): Sendable {
  const text = JSON.stringify(answer)
  let small: Promise<Buffer> | undefined
  return { text, gzip: () => (small ??= packed(text, { level: 3 })) }
}

const OLDEST_MS = 1000
let kept = new Map<string, { at: number, answer: Promise<Sendable> }>()
export const forgetShared = (): void => { kept = new Map() }
bus.on('change', forgetShared)
bus.on('moved', forgetShared)

/** The answer to a question: the one under way or just given, or a new one. A question that failed is asked again. */
export function sharedAnswer(question: string, work: () => Promise<unknown>): Promise<Sendable> {
  // The clock is part of the question: expected times follow it.
  const key = `${Math.floor(nowMs('UTC') / 1000)} ${question}`
  const known = kept.get(key)
  if (known && performance.now() - known.at < OLDEST_MS) return known.answer
  const mine = kept
  const answer = work().then(sendable)
  mine.set(key, { at: performance.now(), answer })
  answer.catch(() => mine.delete(key))
  return answer
}
