/** A part of what is taken off a line, and what it is for, as its paper says it. */
export interface DiscountPart {
  why: string
  minor: number
}
interface Taken {
  /** all that is taken off, minor units */
  discountMinor: number
  /** what of it a price level takes off */
  levelMinor: number
  /** what the level is called */
  level: string
  /** what somebody said of the rest */
  words: string
}

/**
 * Why a line costs less, part by part: its price level by name, and what somebody took off besides it in their own
 * words, or as goodwill. What is taken off is never more than one of them where the level alone would take more.
 * @returns minor units that add up to what is taken off; nothing where nothing is
 * @example discountReasons({ discountMinor: 1500, levelMinor: 1000, level: 'Care', words: 'came late' }) // [{ why: 'by Care', minor: 1000 }, { why: 'came late', minor: 500 }]
 */
export function discountReasons({
  discountMinor,
  levelMinor,
  level,
  words,
}: Taken): DiscountPart[] {
  const byLevel = level ? Math.min(discountMinor, levelMinor) : 0
  return [
    { why: `by ${level}`, minor: byLevel },
    { why: words || 'as goodwill', minor: discountMinor - byLevel },
  ].filter(({ minor }) => minor !== 0)
}
