import { wholeFractions } from '../text/fractions'
import { searchKey } from '../text/searchKey'

/**
 * Groups of entries that are easily taken for one another: the same words in any order, small words and plural endings aside. A size is a
 * word like any other, so that ½ in and ¾ in are told apart.
 * @returns groups of two or more ids, in the order of their first
 * @example lookAlikes([{ id: 'a', name: 'Replace relief valve' }, { id: 'b', name: 'Relief valves, replace' }]) // [['a', 'b']]
 * Our own rule.
 */
export function lookAlikes(entries: readonly { id: string; name: string }[]): string[][] {
  const groups = new Map<string, string[]>()
  for (const e of entries) {
    const key = nameWords(e.name)
    const own = groups.get(key)
    if (own) own.push(e.id)
    else groups.set(key, [e.id])
  }
  return [...groups.values()].filter((g) => g.length > 1)
}
const SMALL = new Set(['a', 'an', 'the', 'of', 'for', 'with', 'and', 'to', 'no'])
/** The words of a name that tell it apart, in one order. @example nameWords('Valves, relief') // 'relief valve' */
export const nameWords = (name: string): string =>
  [
    ...new Set(
      searchKey(wholeFractions(name))
        .split(' ')
        .filter((w) => w && !SMALL.has(w))
        .map((w) => (/^[a-z]{4,}s$/.test(w) && !w.endsWith('ss') ? w.slice(0, -1) : w)),
    ),
  ]
    .sort()
    .join(' ')
