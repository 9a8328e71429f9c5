/**
 * Stops in the order in which they are worked: those that have begun in the order in which they did, then the others as
 * they are planned. Where the day is worked out of order, drives begin where somebody is, not where the plan has them.
 * @param stops epoch ms
 * @example workedOrder([{ startAt: 8, begunAt: null }, { startAt: 10, begunAt: 9 }]).map((s) => s.startAt) // [10, 8]
 */
export function workedOrder<Stop extends { startAt: number; begunAt: number | null }>(
  stops: readonly Stop[],
): Stop[] {
  const inOrder = (a: Stop, b: Stop) =>
    (a.begunAt ?? Infinity) - (b.begunAt ?? Infinity) || a.startAt - b.startAt
  return [...stops].sort((a, b) =>
    a.begunAt === null && b.begunAt === null ? a.startAt - b.startAt : inOrder(a, b),
  )
}
