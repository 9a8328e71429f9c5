// The pages of the guide: one a screen, found by any word.
import MiniSearch from 'minisearch'

export interface GuidePage {
  /** the name of the screen that it is about, as the router calls it */
  name: string
  title: string
  html: string
  /** its words alone, to be searched */
  text: string
}
/** A title says more than a word within. */
const TITLE_WEIGHT = 3
/**
 * Finds pages by words, the best first: each word may be begun only, or be misspelt a little.
 * @example searchGuide([{ name: 'unpaid', title: 'Unpaid', html: '', text: 'Who owes what.' }])('owe')[0]!.name // 'unpaid'
 */
export function searchGuide(pages: readonly GuidePage[]): (words: string) => GuidePage[] {
  const index = new MiniSearch<GuidePage>({ idField: 'name', fields: ['title', 'text'] })
  index.addAll(pages)
  const byName = new Map(pages.map((page) => [page.name, page]))
  const options = { prefix: true, fuzzy: 0.2, boost: { title: TITLE_WEIGHT }, combineWith: 'AND' }
  return (words) =>
    index
      .search(words, options as Parameters<typeof index.search>[1])
      .map(({ id }) => byName.get(id as string)!)
}
