import { daysLate } from '../collections/ageing'
import { plusDays } from '../time/zone'

/**
 * How an agreement stands on a day, said as a person would. A visit is due from 30 days before its day; an agreement
 * that ends within 60 days wants a word about renewal.
 * @example agreementState({ startsOn: '2026-01-01', endsOn: '2026-12-31', visitDueOn: '2026-06-01' }, '2026-06-11') // 'visit overdue by 10 days'
 */
export function agreementState(
  a: { startsOn: string; endsOn: string; visitDueOn: string | null },
  today: string,
): string {
  if (today < a.startsOn) return 'not begun'
  if (today > a.endsOn) return 'ended'
  if (a.visitDueOn && a.visitDueOn < today)
    return `visit overdue by ${daysBetween(a.visitDueOn, today)}`
  if (a.visitDueOn === today) return 'visit due today'
  if (a.visitDueOn && a.visitDueOn <= plusDays(today, 30))
    return `visit due in ${daysBetween(today, a.visitDueOn)}`
  if (a.endsOn <= plusDays(today, 60)) return `ends in ${daysBetween(today, a.endsOn)}`
  return 'in force'
}
function daysBetween(from: string, to: string): string {
  const days = daysLate(from, to)
  return days === 1 ? '1 day' : `${days} days`
}
