// How far a role may go where it is an amount or a share: over it, somebody else's yes is needed.
import type { Role } from './permissions'

export interface Limits {
  /** how far below its usual price a line may be set or discounted, in whole per cent */
  lowerPercent: number
  /** whether a line may be sold below what it costs */
  belowCost: boolean
  /** whether clocked time is corrected without another person's yes */
  mendsTime: boolean
}
/** Acts that another person's yes may be asked for. */
export const ASKABLE = [
  'changeLine',
  'discountLines',
  'enterTime',
  'mendTime',
  'sendQuote',
] as const
export type Askable = (typeof ASKABLE)[number]
/** What holds until the owner says otherwise (our own choice). */
export const USUAL_LIMITS: Readonly<Record<Role, Limits>> = {
  owner: { lowerPercent: 100, belowCost: true, mendsTime: true },
  office: { lowerPercent: 50, belowCost: false, mendsTime: true },
  dispatch: { lowerPercent: 10, belowCost: false, mendsTime: true },
  books: { lowerPercent: 10, belowCost: false, mendsTime: true },
  technician: { lowerPercent: 10, belowCost: false, mendsTime: true },
}
/** A line by its net sums in minor units. */
export interface LineSums {
  netMinor: number
  /** what it comes to by the book, the level and what was agreed, or 0 where nothing says */
  usualMinor: number
  costMinor: number
}
/**
 * By how much a line is below its usual price, in whole per cent rounded up: a hair over a limit is over it.
 * @example loweredPercent({ netMinor: 1, usualMinor: 15_900, costMinor: 0 }) // 100
 */
export const loweredPercent = ({ netMinor, usualMinor }: LineSums): number =>
  usualMinor <= 0 || netMinor >= usualMinor
    ? 0
    : Math.ceil(((usualMinor - netMinor) * 100) / usualMinor)
/**
 * Which limit a line goes beyond; null where it stays within.
 * @example beyondLimit({ netMinor: 80, usualMinor: 100, costMinor: 90 }, USUAL_LIMITS.technician) // 'lowered'
 */
export function beyondLimit(
  line: LineSums,
  limits: Pick<Limits, 'lowerPercent' | 'belowCost'>,
): 'lowered' | 'below_cost' | null {
  const { netMinor, usualMinor, costMinor } = line
  // Without rounding: a third of a per cent over is over.
  if (netMinor < usualMinor && (usualMinor - netMinor) * 100 > limits.lowerPercent * usualMinor)
    return 'lowered'
  return !limits.belowCost && netMinor < costMinor && netMinor < usualMinor ? 'below_cost' : null
}
