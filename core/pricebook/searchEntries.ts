import MiniSearch from 'minisearch'
import { searchKey } from '../text/searchKey'

export interface Searchable { id: string, code: string, name: string, category: string, synonyms: string, parts: string, pinned: boolean }

/**
 * An index over the price book: words in any order, by their beginnings, forgiving a typo, over name, code, category,
 * synonyms and the names of the parts inside a task. Pinned entries come first among equals.
 * @returns a function from words to ids, best first
 * @example searchEntries(book)('presure tank') // finds "Replace pressure tank"
 */
export function searchEntries(entries: readonly Searchable[]): (words: string, limit?: number) => string[] {
  const index = new MiniSearch<Searchable>({
    fields: ['code', 'name', 'category', 'synonyms', 'parts'], storeFields: ['pinned'],
    tokenize: text => searchKey(text).split(' ').filter(Boolean), processTerm: term => term,
    searchOptions: { prefix: true, fuzzy: term => (term.length > 4 ? 0.2 : false), combineWith: 'AND', boost: { name: 3, code: 3, synonyms: 2, category: 1, parts: 0.5 }, boostDocument: (_id, _term, fields) => (fields?.pinned ? 1.5 : 1) },
  })
  index.addAll([...entries])
  return (words, limit = 20) => index.search(words).slice(0, limit).map(found => String(found.id))
}
