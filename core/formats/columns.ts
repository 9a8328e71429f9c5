import { searchKey } from '../text/searchKey'

/**
 * Proposes what each column of somebody's file means, by its heading; each meaning is given once, to the first column
 * that fits.
 * @param headings what each meaning is called in files, as searchKey writes it
 * @example guessMeanings(['Shoe size', 'Town'], { town: ['town', 'city'] }) // [null, 'town']
 */
export function guessMeanings<Means extends string>(
  head: readonly string[],
  headings: Readonly<Record<Means, readonly string[]>>,
): (Means | null)[] {
  const all = Object.keys(headings) as Means[]
  const taken = new Set<Means>()
  return head.map((heading) => {
    const key = searchKey(heading)
    const means = all.find(
      (m) => !taken.has(m) && (headings[m].includes(key) || key === searchKey(m)),
    )
    if (!means) return null
    taken.add(means)
    return means
  })
}

/** One row by what its columns mean; columns without a meaning, and empty cells, are left out. */
export const rowByMeaning = <Means extends string>(
  row: readonly string[],
  columns: readonly (Means | null)[],
): Partial<Record<Means, string>> =>
  Object.fromEntries(
    columns.flatMap((means, i) => (means && row[i] ? [[means, row[i]]] : [])),
  ) as Partial<Record<Means, string>>
