import { Temporal } from 'temporal-polyfill'

/**
 * The day by which the next visit of an agreement is due, after one that was due on a day: twelve months divided by the
 * visits a year, in whole months, kept to the last day of a shorter month. None once the agreement has ended.
 * @example nextVisitDue('2026-01-31', 4, '2027-01-30') // '2026-04-30'
 */
export function nextVisitDue(
  lastDueOn: string,
  visitsAYear: number,
  endsOn: string,
): string | null {
  const next = Temporal.PlainDate.from(lastDueOn).add({
    months: Math.max(1, Math.round(12 / visitsAYear)),
  })
  return Temporal.PlainDate.compare(next, Temporal.PlainDate.from(endsOn)) > 0
    ? null
    : next.toString()
}
