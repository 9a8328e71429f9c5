// Answers that are the same for everybody who may ask: when one person acts, twenty screens ask the same question in the same
// moment. One of them is worked out, the others are handed what it says. The question names the last event that the asker
// could have seen, so that nobody reads what was before their own act, whichever process took it.
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import { nowMs } from './clock'

const packed = promisify(gzip) as (text: string, options: { level: number }) => Promise<Buffer>
/** An answer as it is sent; compressed at most once, however many take it. */
export interface Sendable {
  text: string
  gzip(): Promise<Buffer>
}
export function sendable(answer: unknown): Sendable {
  const text = JSON.stringify(answer)
  let small: Promise<Buffer> | undefined
  return { text, gzip: () => (small ??= packed(text, { level: 3 })) }
}

const OLDEST_MS = 1000
const MOST_CACHED = 200
const cache = new Map<string, { at: number; answer: Promise<Sendable> }>()

/** The answer to a question: the one under way or just given, or a new one. A question that failed is asked again. */
export function sharedAnswer(question: string, work: () => Promise<unknown>): Promise<Sendable> {
  // The clock is part of the question: expected times follow it.
  const key = `${Math.floor(nowMs('UTC') / 1000)} ${question}`
  const now = performance.now()
  const known = cache.get(key)
  if (known && now - known.at < OLDEST_MS) return known.answer
  for (const [old, { at }] of cache) {
    if (now - at < OLDEST_MS && cache.size < MOST_CACHED) break
    cache.delete(old)
  }
  const answer = work().then(sendable)
  cache.set(key, { at: now, answer })
  answer.catch(() => cache.delete(key))
  return answer
}
