// What is taken off a line, and what for: its price level, and what somebody gave besides it.
import { discountReasons, type DiscountPart } from '../../core/documents/discountReasons'
import type { LineRow } from './lines.queries'

/** What the customer's level takes off a line. */
export const levelPart = (l: Pick<LineRow, 'savingMinor'>, level: { own: boolean }): number =>
  level.own ? l.savingMinor : 0
/** What a line's discount is for, part by part. */
export const reasonsOf = (
  l: Pick<LineRow, 'savingMinor' | 'discountMinor' | 'discountWords'>,
  { level, own }: { level: { name: string } | null; own: boolean },
): DiscountPart[] =>
  discountReasons({
    discountMinor: l.discountMinor,
    levelMinor: levelPart(l, { own }),
    level: (own && level?.name) || '',
    words: l.discountWords,
  })
