/**
 * What a line comes to beyond what its customer agreed to, net of tax in minor units: all of it where it came later, the
 * difference where it grew. Where nothing was ever agreed, nothing is beyond it.
 * @param hasAgreed whether something of the work order was signed, or accepted as a quote
 * @example notAgreedMinor({ netMinor: 12_000, promisedMinor: 10_000 }, true) // 2000
 */
export const notAgreedMinor = (
  { netMinor, promisedMinor }: { netMinor: number; promisedMinor: number },
  hasAgreed: boolean,
): number => (hasAgreed ? Math.max(0, netMinor - promisedMinor) : 0)
/**
 * What a bill of these lines would ask beyond what was agreed: of each at most what is billed of it now.
 * @example beyondAgreedMinor([{ netMinor: 120, promisedMinor: 100, unbilledMinor: 10 }], true) // 10
 */
export const beyondAgreedMinor = (
  lines: readonly { netMinor: number; promisedMinor: number; unbilledMinor: number }[],
  hasAgreed: boolean,
): number =>
  lines.reduce((sum, l) => sum + Math.min(l.unbilledMinor, notAgreedMinor(l, hasAgreed)), 0)
