// What is kept of a work order's state, against what it follows from.
import { uncoveredSeconds } from '../../core/costing/uncoveredSeconds'
import { standingOf } from './account'
import { visitsIn, type StandingRow } from './standing.queries'

/** What of a work order is kept otherwise than it follows from its visits, lines and invoices, in words. */
export function misstatedIn(row: StandingRow): string[] {
  const visits = visitsIn(row)
  const attended = visits.some(({ state }) => state === 'finished')
  const { workedSeconds: worked, coveredSeconds: covered, explainedSeconds: explained } = row
  const { cancelled, closed, toBillMinor, billedMinor, unpaidMinor, undone } = row
  const free = Boolean(row.free)
  const follows = standingOf({
    ...{ cancelled, closed, visits, toBillMinor, billedMinor, unpaidMinor, undone, free },
    quoted: Boolean(row.quoted),
    uncoveredSeconds: attended && !free ? uncoveredSeconds({ worked, covered, explained }) : 0,
  })
  const wrong = (['state', 'toBill', 'uncovered'] as const).filter((k) => follows[k] !== row[k])
  return wrong.map((k) => `is kept with ${k} ${row[k]}, and it follows ${follows[k]}`)
}
