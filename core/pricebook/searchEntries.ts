import MiniSearch, { type Query, type SearchOptions } from 'minisearch'
import { wholeFractions } from '../text/fractions'
import { searchKey } from '../text/searchKey'
import { typosToBegin } from '../text/typosToBegin'
import { inCategory } from './inCategory'

export interface Searchable {
  id: string
  code: string
  name: string
  category: string
  kind: string
  synonyms: string
  /** the names of what is inside */
  parts: string
  pinned: boolean
  /** how often it was sold of late */
  used: number
}
export interface SearchLimits {
  limit?: number | undefined
  kind?: string | undefined
  category?: string | undefined
}

/**
 * An index over the price book: words in any order, by their beginnings, forgiving typos, over name, code, category, synonyms and the
 * names of the parts inside. What matches better comes first; among equals what is pinned, and what is sold more often. A word is taken
 * for others like it only when nothing begins as it does, or when all words together find nothing: who types right is not shown what they
 * did not mean. A word with a digit is a size or a code, and never taken for another one;
 * one or two letters are taken as they stand, but for the last word, which may not be typed to its end.
 * @returns a function from words to ids, best first
 * @example searchEntries(book)('presure tank') // finds "Replace pressure tank"
 */
export function searchEntries(
  entries: readonly Searchable[],
): (words: string, limits?: SearchLimits) => string[] {
  const known = new Set<string>()
  const index = new MiniSearch<Searchable>({
    fields: ['code', 'name', 'category', 'synonyms', 'parts'],
    storeFields: ['pinned', 'used', 'kind', 'category'],
    tokenize: wordsOf,
    processTerm: (term) => {
      if (!/\d/.test(term)) known.add(term)
      return term
    },
    searchOptions: {
      prefix: true,
      combineWith: 'AND',
      boost: { name: 3, code: 3, synonyms: 2, category: 1, parts: 0.4 },
      weights: { prefix: 0.5, fuzzy: 0.3 },
      processTerm: (term) => term,
      boostDocument: (_id, _term, fields) =>
        (fields?.pinned ? 1.4 : 1) * (1 + Math.log10(1 + Number(fields?.used ?? 0)) / 5),
    },
  })
  index.addAll([...entries])
  const vocabulary = [...known]
  return (words, { limit = 20, kind, category } = {}) => {
    const typed = [...new Set(wordsOf(words))]
    const filter: SearchOptions['filter'] =
      kind || category
        ? (found) =>
            (!kind || found.kind === kind) &&
            (!category || inCategory(found.category as string, category))
        : undefined
    const search = (of: (word: string) => string[]) =>
      index.search(
        {
          combineWith: 'AND',
          queries: typed.map((word, i): Query => ({
            combineWith: 'OR',
            queries: of(word),
            prefix: word.length > 2 || (word.length > 1 && i === typed.length - 1),
          })),
        },
        filter ? { filter } : {},
      )
    const begun = search((word) =>
      vocabulary.some((v) => v.startsWith(word)) ? [word] : likeWords(word, vocabulary),
    )
    const found =
      begun.length || !typed.length ? begun : search((word) => likeWords(word, vocabulary))
    return found.slice(0, limit).map((f) => String(f.id))
  }
}
const wordsOf = (text: string): string[] =>
  searchKey(wholeFractions(text)).split(' ').filter(Boolean)
/** A word and the known ones that it may be meant for, the nearest first. */
function likeWords(word: string, vocabulary: readonly string[]): string[] {
  if (/\d/.test(word) || word.length < 4) return [word]
  const most = word.length < 6 ? 1 : 2
  const like = vocabulary
    .map((v) => ({ v, typos: typosToBegin(word, v, most) }))
    .filter((l) => l.typos <= most)
  const least = Math.min(...like.map((l) => l.typos))
  return [
    word,
    ...like
      .filter((l) => l.typos === least)
      .slice(0, 8)
      .map((l) => l.v),
  ]
}
