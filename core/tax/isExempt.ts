/**
 * Whether somebody pays no tax on a day: they are exempt, and their certificate, where it ends at all, has not ended before it.
 * Asked on the day of the paper, so that the tax on it and the certificate that it names are of one moment.
 * @example isExempt({ taxExempt: true, exemptUntil: '2026-11-23' }, '2026-11-24') // false
 */
export const isExempt = (
  who: { taxExempt: boolean; exemptUntil: string | null },
  day: string,
): boolean => who.taxExempt && !(who.exemptUntil && who.exemptUntil < day)
