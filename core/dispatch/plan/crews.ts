// Visits of one crew are one visit of several technicians: all of them go, or none.
import type { Problem } from './problem'

/**
 * Visits that are served although somebody of their crew is not: they are worth nothing, and cost as if they were left out.
 * @param served visits by their index
 * @example halfCrews(problem, new Set([0])) // [0] where visits 0 and 1 are one crew
 */
export function halfCrews(p: Problem, served: ReadonlySet<number>): number[] {
  if (!p.crews) return []
  const missing = new Set(
    p.visits.flatMap((v, i) => (v.crew >= 0 && !served.has(i) ? [v.crew] : [])),
  )
  return missing.size
    ? p.visits.flatMap((v, i) => (missing.has(v.crew) && served.has(i) && !v.locked ? [i] : []))
    : []
}
