import { categoriesAround } from './inCategory'
import type { MarkupTier } from './partPrice'

/** Tiers for all parts, for those of a category, or for those of a supplier. */
export interface MarkupRule {
  scope: 'all' | 'category' | 'supplier'
  name: string
  tiers: readonly MarkupTier[]
}

/**
 * The rule that prices a part: its supplier's before its category's (or one that this stands in) before the one for all (our own order, from
 * the narrowest to the widest). Null where none fits.
 * @example markupRuleFor({ category: 'Pump', supplier: '' }, rules)?.name // 'Pump'
 */
export function markupRuleFor(
  part: { category: string; supplier: string },
  rules: readonly MarkupRule[],
): MarkupRule | null {
  const of = (scope: MarkupRule['scope'], name: string) =>
    rules.find(
      (r) =>
        r.scope === scope &&
        r.tiers.length > 0 &&
        (scope === 'all' || (name !== '' && r.name === name)),
    )
  return (
    of('supplier', part.supplier) ??
    categoriesAround(part.category)
      .map((c) => of('category', c))
      .find(Boolean) ??
    of('all', '') ??
    null
  )
}
