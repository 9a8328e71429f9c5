import { plusMonths } from '../time/zone'

/**
 * The last day on which what was supplied is in the firm's warranty, counted from the day of supply; null where the firm gives none.
 * @param suppliedOn local date
 * @param months whole months, 0 for none
 * @example warrantyUntil('2026-01-31', 1) // '2026-02-28'
 */
export const warrantyUntil = (suppliedOn: string, months: number): string | null =>
  months > 0 ? plusMonths(suppliedOn, months) : null
