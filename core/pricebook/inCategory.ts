/** Between a category and one inside it. */
export const WITHIN = ' / '

/**
 * Whether a category is another one or stands inside it: categories are a tree, written as a path.
 * @example inCategory('Pipework / Valves', 'Pipework') // true
 * @example inCategory('Pipework', 'Pipe') // false
 */
export const inCategory = (category: string, of: string): boolean =>
  category === of || category.startsWith(of + WITHIN)
/**
 * A category and all that it stands in, the narrowest first.
 * @example categoriesAround('Pipework / Valves') // ['Pipework / Valves', 'Pipework']
 */
export function categoriesAround(category: string): string[] {
  const steps = category.split(WITHIN)
  return steps.map((_, i) => steps.slice(0, steps.length - i).join(WITHIN))
}
/**
 * The tree of some categories, in order, each with how deep it stands and its last word; what is only stood in is there, too.
 * @example categoryTree(['Pipework / Valves', 'Lab']) // [{ path: 'Lab', … }, { path: 'Pipework', depth: 0, … }, { path: 'Pipework / Valves', depth: 1, name: 'Valves' }]
 */
export function categoryTree(
  categories: readonly string[],
): { path: string; name: string; depth: number }[] {
  const paths = [...new Set(categories.flatMap(categoriesAround))]
  // Compared step by step, so that what stands inside follows at once.
  const steps = paths
    .map((p) => p.split(WITHIN))
    .sort((a, b) => {
      const at = a.findIndex((s, i) => s !== b[i])
      return at < 0 ? a.length - b.length : (a[at] ?? '').localeCompare(b[at] ?? '')
    })
  return steps.map((s) => ({ path: s.join(WITHIN), name: s.at(-1)!, depth: s.length - 1 }))
}
