/** How a customer pays, from so many paid invoices: days after the due date, before it when negative. */
export interface PaymentHabit {
  medianDays: number
  spreadDays: number
  of: number
}

/**
 * How a customer pays: median days from due to paid and the spread (half the distance between the quartiles, at least 1).
 * Null below two paid invoices: there is no habit yet.
 * @example paymentHabit([3, 5, 4]) // { medianDays: 4, spreadDays: 1, of: 3 }
 * Source: quantiles of type 7 (linear interpolation), as in most statistics software.
 */
export function paymentHabit(daysFromDue: readonly number[]): PaymentHabit | null {
  if (daysFromDue.length < 2) return null
  const sorted = [...daysFromDue].sort((a, b) => a - b)
  return {
    medianDays: Math.round(quantile(sorted, 0.5)),
    spreadDays: Math.max(1, Math.round((quantile(sorted, 0.75) - quantile(sorted, 0.25)) / 2)),
    of: sorted.length,
  }
}

/** Type 7 quantile of sorted values. @example quantile([3,6,7,8,8,10,13,15,16,20], 0.9) // 16.4 */
export function quantile(sorted: readonly number[], p: number): number {
  const h = (sorted.length - 1) * p
  const low = Math.floor(h)
  return sorted[low]! + (h - low) * ((sorted[low + 1] ?? sorted[low]!) - sorted[low]!)
}
