// Calls counted by what they have in common, with what came of them.
/** What a call came to: work, a quote that nobody said yes to yet, words alone, a no, or nothing yet. */
export const OUTCOMES = ['work', 'quote', 'answered', 'declined', 'waiting'] as const
export type Outcome = (typeof OUTCOMES)[number]
/** Calls that are alike: how many, and what was billed and paid of their work, in minor units. */
export interface AlikeCalls {
  about: string
  kind: string
  source: string
  outcome: Outcome
  calls: number
  billedMinor: number
  paidMinor: number
}
export type CountedBy = 'about' | 'kind' | 'source'
export interface CallCount {
  key: string
  calls: number
  came: Record<Outcome, number>
  billedMinor: number
  paidMinor: number
}
const nothing = (key: string): CallCount => ({
  ...{ key, calls: 0, billedMinor: 0, paidMinor: 0 },
  came: { work: 0, quote: 0, answered: 0, declined: 0, waiting: 0 },
})
function add(count: CallCount, alike: AlikeCalls): void {
  count.calls += alike.calls
  count.came[alike.outcome] += alike.calls
  count.billedMinor += alike.billedMinor
  count.paidMinor += alike.paidMinor
}
/**
 * Calls by source, kind of work or what they were about: what brought most first, then the most calls.
 * @example callCounts([{ about: 'bill', kind: '', source: 'web', outcome: 'work', calls: 2, billedMinor: 500, paidMinor: 0 }], 'source')
 * // [{ key: 'web', calls: 2, came: { work: 2, … }, billedMinor: 500, paidMinor: 0 }]
 */
export function callCounts(alike: readonly AlikeCalls[], by: CountedBy): CallCount[] {
  const counts = new Map<string, CallCount>()
  for (const some of alike) {
    const key = some[by]
    const count = counts.get(key) ?? nothing(key)
    counts.set(key, count)
    add(count, some)
  }
  return [...counts.values()].sort(
    (a, b) => b.billedMinor - a.billedMinor || b.calls - a.calls || (a.key < b.key ? -1 : 1),
  )
}
/** All of them together. @example allCalls([]).calls // 0 */
export function allCalls(alike: readonly AlikeCalls[]): CallCount {
  const all = nothing('')
  for (const some of alike) add(all, some)
  return all
}
