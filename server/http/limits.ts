// How often somebody may try something: counted in the database, before the work, so that parallel
// tries and other processes count too. Whoever tries too often is slowed down, not shut out.
import type { Tx } from '../db/pool'
import { LedgerError } from '../../core/errors/LedgerError'
import { addTry, forgetTries, tryRow } from './limits.queries'

export interface Limit {
  /** so many cost nothing */
  free: number
  /** the wait after the first beyond them, which doubles with each further one */
  firstWaitMs: number
  longestWaitMs: number
  /** forgotten when nothing was tried for so long */
  forgetMs: number
}
/** How long the next try has to wait, after `count` tries of which the last was `sinceMs` ago. */
export function waitFor(limit: Limit, count: number, sinceMs: number): number {
  if (count < limit.free || sinceMs > limit.forgetMs) return 0
  const wait = Math.min(
    limit.longestWaitMs,
    limit.firstWaitMs * 2 ** Math.min(30, count - limit.free),
  )
  return Math.max(0, wait - sinceMs)
}
export const tooOften = (detail: string, waitMs: number) =>
  new LedgerError('too_often', detail, {
    extra: {
      retryAfter: Math.max(1, Math.ceil(waitMs / 1000)),
    },
  })

/** Counts a try; answers 0, or how many milliseconds too early it was, and then it is not counted. */
export async function countTry(tx: Tx, key: string, limit: Limit, now: number): Promise<number> {
  const known = await tryRow(tx, key, now)
  const since = now - known.lastAt
  const wait = waitFor(limit, known.count, since)
  if (wait > 0) return wait
  await addTry(tx, key, since > limit.forgetMs ? 1 : known.count + 1, now)
  return 0
}
/** How often something was tried, as it stands. */
export const triesOf = async (tx: Tx, key: string, limit: Limit, now: number): Promise<number> => {
  const known = await tryRow(tx, key, now)
  return now - known.lastAt > limit.forgetMs ? 0 : known.count
}
export const forgiveTries = forgetTries

const begun = new Map<string, number>()
/**
 * Does it, unless `most` of the same key are at it in this process already: answers null then. Counting
 * waits for a lock, and whoever floods must not hold the connections of everybody else while they wait.
 */
export async function fewAtOnce<T>(
  key: string,
  most: number,
  act: () => Promise<T>,
): Promise<T | null> {
  const others = begun.get(key) ?? 0
  if (others >= most) return null
  begun.set(key, others + 1)
  try {
    return await act()
  } finally {
    const left = begun.get(key)! - 1
    if (left) begun.set(key, left)
    else begun.delete(key)
  }
}
