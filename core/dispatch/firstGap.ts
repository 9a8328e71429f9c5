/**
 * The first start, on a quarter of an hour, at which a visit of that length fits into the working hours without touching
 * anything that is there; null where the day has no such place. Drives are not counted here. All in epoch milliseconds.
 * @example firstGap({ working: [{ from: 0, to: 7200e3 }], busy: [{ from: 0, to: 1800e3 }], seconds: 3600, after: 0 }) // 1800000
 */
export function firstGap(day: {
  working: readonly { from: number; to: number }[]
  busy: readonly { from: number; to: number }[]
  seconds: number
  after: number
}): number | null {
  const quarter = 900_000
  const length = day.seconds * 1000
  const busy = [...day.busy].sort((a, b) => a.from - b.from)
  for (const { from, to } of day.working) {
    let start = Math.ceil(Math.max(from, day.after) / quarter) * quarter
    for (const b of busy) {
      if (start + length <= b.from) break
      if (b.to > start) start = Math.ceil(b.to / quarter) * quarter
    }
    if (start + length <= to) return start
  }
  return null
}
