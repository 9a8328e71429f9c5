import type { EntryKind, LineKind } from './kinds'

/** What taxes tell apart before anything else: what is handed over, and what is done. */
export const TAXED_AS = ['goods', 'work'] as const
export type TaxedAs = (typeof TAXED_AS)[number]

/** As what a kind of line, or entry of the book, is usually taxed. @example taxedAs('labour') // 'work' */
export const taxedAs = (kind: LineKind | EntryKind): TaxedAs =>
  kind === 'labour' || kind === 'charge' ? 'work' : 'goods'

/**
 * The class of taxes that goods, or work, usually have: the one that is marked so, or else the first by its identifier,
 * in whatever order they are told; null in a firm that has none yet.
 * @example usualTaxClass([{ id: 'full', usualFor: null }], 'work') // 'full'
 */
export const usualTaxClass = (
  classes: readonly { id: string; usualFor: TaxedAs | null }[],
  as: TaxedAs,
): string | null => {
  const [first = null] = classes.map(({ id }) => id).sort()
  return classes.find(({ usualFor }) => usualFor === as)?.id ?? first
}
