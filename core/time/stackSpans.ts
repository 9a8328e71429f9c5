/** A stretch of time, in epoch milliseconds: from its first moment up to, and without, its last. */
export interface Span {
  from: number
  to: number
}
/**
 * The level on which each of some spans is drawn, so that no two that overlap lie on each other: 0 is the first one. As few levels are used as
 * most spans overlap at one moment; a span that is over when another begins leaves it its level. One without length takes up none.
 * @param spans in any order; answered in the same order
 * @example stackSpans([{ from: 0, to: 2 }, { from: 1, to: 3 }, { from: 2, to: 4 }]) // [0, 1, 0]
 * Source: interval partitioning by earliest start (Kleinberg and Tardos, Algorithm Design, 4.1), from memory.
 */
export function stackSpans(spans: readonly Span[]): number[] {
  const levels = spans.map(() => 0)
  /** when each level is free again */
  const free: number[] = []
  const order = spans.map((span, at) => ({ ...span, at }))
  order.sort((a, b) => a.from - b.from || a.at - b.at)
  for (const { from, to, at } of order) {
    const level = free.findIndex((end) => end <= from)
    levels[at] = level < 0 ? free.length : level
    free[levels[at]] = to
  }
  return levels
}
