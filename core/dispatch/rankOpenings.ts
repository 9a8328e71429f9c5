import type { Opening } from './opening'

export const OPENING_ORDERS = ['best', 'first', 'cheapest', 'known'] as const
export type OpeningOrder = (typeof OPENING_ORDERS)[number]
const sound = (o: Opening): number =>
  Number(o.lacks.length > 0) * 4 + Number(o.foreign) * 2 + Number(o.overCapacity)

/**
 * Openings in the order that was asked for. Whatever the order, what is softly wrong comes after what is sound.
 * - `best`: by score. `first`: the first possible time. `cheapest`: the least driving. `known`: technicians whom the customer knows first.
 * @example rankOpenings(found, 'first')[0] // the earliest sound one
 */
export function rankOpenings(found: readonly Opening[], order: OpeningOrder): Opening[] {
  if (order === 'best') return [...found].sort((a, b) => a.score - b.score)
  const key = {
    first: (o: Opening) => o.startAt,
    cheapest: (o: Opening) => o.extraDriveSeconds,
    known: (o: Opening) => (o.known ? 0 : 1e6) + o.score,
  }[order]
  return [...found].sort((a, b) => sound(a) - sound(b) || key(a) - key(b) || a.score - b.score)
}
