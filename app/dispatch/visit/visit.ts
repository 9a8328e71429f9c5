import type { Answer } from '~~/shared/api'

/** A visit as the schedule shows it. */
export type Visit = Answer<'placeVisit'>
export type Technician = {
  id: string
  name: string
  kind: string
  goesWith?: string | null
}
const QUARTER = 15 * 60
const LONGEST = 40
/** Quarters of an hour, up to ten hours, and what it has. */
export const lengthsFor = (visit: Visit): number[] =>
  [
    ...new Set([
      ...Array.from({ length: LONGEST }, (_, i) => (i + 1) * QUARTER),
      visit.durationSeconds,
    ]),
  ].sort((a, b) => a - b)
/** Half of it, in whole quarters: where it would be split. */
export const halfOf = (visit: Visit): number =>
  Math.max(QUARTER, Math.round(visit.durationSeconds / 2 / QUARTER) * QUARTER)
