// One try of the search: a plan that is taken apart and put together again.
import type { Problem } from './problem'

/** It is changed in place: the search makes thousands of them a second. */
export interface Attempt {
  readonly p: Problem
  /** a source in [0, 1) */
  readonly random: () => number
  /** each technician's day, and what it costs */
  readonly routes: number[][]
  readonly costs: number[]
  /** in whose day each visit is, -1 where in none */
  readonly where: Int32Array
  /** days that something was taken out of */
  readonly touched: Set<number>
}
/** Visits that were in none of the days before. */
export const waitingIn = (p: Problem, routes: readonly (readonly number[])[]): number[] => {
  const served = new Set(routes.flat())
  return p.visits.flatMap((_, v) => (served.has(v) ? [] : [v]))
}
