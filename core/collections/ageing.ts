import { daysBetween } from '../time/zone'

export const BUCKETS = ['current', 'd1_30', 'd31_60', 'd61_90', 'over90'] as const
export type Bucket = (typeof BUCKETS)[number]

/** Days from due to `on`; negative while it is not due. @example daysLate('2026-11-01', '2026-11-24') // 23 */
export const daysLate = (dueOn: string, on: string): number => daysBetween(dueOn, on)

/** The ageing bucket of a number of days past due. @example bucketOf(31) // 'd31_60' */
export function bucketOf(late: number): Bucket {
  if (late <= 0) return 'current'
  if (late <= 30) return 'd1_30'
  if (late <= 60) return 'd31_60'
  return late <= 90 ? 'd61_90' : 'over90'
}

export interface AgeingRow extends Record<Bucket, number> {
  customerId: string
  creditsMinor: number
  owedMinor: number
  oldestLate: number
}

/**
 * What each customer owes on a date, by how late. Unapplied credits stand apart: owed = Σ buckets − credits.
 * @param open balances as they stood on that date, minor units
 * @returns rows by amount owed, largest first; customers at zero are left out
 * Source: common practice of bookkeeping (30-day buckets from the due date).
 */
export function ageing(
  open: readonly { customerId: string; dueOn: string; balanceMinor: number }[],
  credits: readonly { customerId: string; amountMinor: number }[],
  on: string,
): AgeingRow[] {
  const rows = new Map<string, AgeingRow>()
  const row = (customerId: string) => {
    const found = rows.get(customerId) ?? {
      customerId,
      current: 0,
      d1_30: 0,
      d31_60: 0,
      d61_90: 0,
      over90: 0,
      creditsMinor: 0,
      owedMinor: 0,
      oldestLate: 0,
    }
    rows.set(customerId, found)
    return found
  }
  for (const invoice of open) {
    const r = row(invoice.customerId)
    const late = daysLate(invoice.dueOn, on)
    r[bucketOf(late)] += invoice.balanceMinor
    r.owedMinor += invoice.balanceMinor
    if (invoice.balanceMinor > 0) r.oldestLate = Math.max(r.oldestLate, late)
  }
  for (const credit of credits) {
    const r = row(credit.customerId)
    r.creditsMinor += credit.amountMinor
    r.owedMinor -= credit.amountMinor
  }
  return [...rows.values()]
    .filter((r) => r.owedMinor !== 0 || r.creditsMinor !== 0)
    .sort((a, b) => b.owedMinor - a.owedMinor)
}
