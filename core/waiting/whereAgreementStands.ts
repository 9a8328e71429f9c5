import { plusDays, plusMonths } from '../time/zone'
import type { At, Standing } from './whereItStands'

export interface AgreementFacts {
  /** local dates */
  endsOn: string
  visitDueOn: string | null
  /** a visit of it was made, and is still to come */
  booked: boolean
}
/** The last day of a date's month. */
const monthEnd = (date: string) => plusDays(plusMonths(`${date.slice(0, 7)}-01`, 1), -1)
/**
 * Where a care agreement stands: among the visits that are due, from the month in which one is, until it is made.
 * @example whereAgreementStands({ endsOn: '2027-06-30', visitDueOn: '2026-11-30', booked: false }, at)
 * // { place: 'agreements', reason: 'a visit is due by Mon, Nov 30', next: 'Make the visit' }
 */
export function whereAgreementStands(
  { endsOn, visitDueOn, booked }: AgreementFacts,
  { today, day }: At,
): Standing {
  if (endsOn < today) return { rest: 'ended' }
  if (visitDueOn === null || visitDueOn > monthEnd(today)) return { rest: 'no visit is due' }
  if (booked) return { through: 'work order' }
  const is = visitDueOn < today ? 'was' : 'is'
  return {
    place: 'agreements',
    reason: `a visit ${is} due by ${day(visitDueOn)}`,
    next: 'Make the visit',
  }
}
