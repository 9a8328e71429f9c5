import MiniSearch, { type SearchResult } from 'minisearch'
import { searchKey } from '../text/searchKey'
import { spokenDigits } from '../text/spokenDigits'

/** What is known of a customer that somebody on the telephone could say. Numbers are digits only. */
export interface MatchDoc { id: string, name: string, contacts: string[], places: string[], mails: string[], phones: string[], serials: string[], other: string[] }
export type MatchField = 'name' | 'contacts' | 'places' | 'mails' | 'phones' | 'serials' | 'other'
export interface Found { id: string, score: number, why: { field: MatchField, word: string }[] }

const BOOST: Record<MatchField, number> = { name: 4, phones: 4, serials: 4, contacts: 3, mails: 2, places: 2, other: 1 }
const FIELDS = Object.keys(BOOST) as MatchField[]
/** The words of a name as people type them: O'Duya is one word, with or without its sign. */
export const nameKey = (text: string): string => searchKey(text.replace(/['’`]/g, ''))

/** Every way in which a number is said: all of it, without the area, its last four. */
const phoneTerms = (digits: string): string[] => (digits.length < 4 ? [digits] : [...new Set([digits, digits.slice(-7), digits.slice(-4)])])

/**
 * An index of customers that forgives typos and understands spoken numbers. Every word of the question must be found;
 * only where that finds nothing is a word allowed to be misspelt, and only after that may words be missing.
 * Ranking is BM25+ with names, numbers and serials weighing most (weights are our own).
 * @example
 * const index = matchIndex([{ id: 'a', name: 'Hallam Dairy', phones: ['6075550142'], … }])
 * index.find('five five five oh one four two')[0].id // 'a'
 */
export function matchIndex(docs: readonly MatchDoc[]) {
  const search = new MiniSearch<MatchDoc>({
    fields: FIELDS,
    extractField: (doc, field) => {
      if (field === 'id') return doc.id
      if (field === 'phones') return doc.phones.flatMap(phoneTerms).join(' ')
      // A serial number is typed with and without its dash.
      if (field === 'serials') return doc.serials.flatMap(s => [nameKey(s), nameKey(s).replaceAll(' ', '')]).join(' ')
      const value = doc[field as MatchField]
      return (typeof value === 'string' ? [value] : value).map(nameKey).join(' ')
    },
    tokenize: text => text.split(' ').filter(Boolean),
    processTerm: term => term,
    searchOptions: { boost: BOOST, weights: { fuzzy: 0.3, prefix: 0.6 } },
  })
  search.addAll(docs)
  const shape = (r: SearchResult): Found => ({ id: r.id as string, score: r.score, why: Object.entries(r.match).map(([word, fields]) => ({ word, field: fields[0] as MatchField })) })

  function ask(words: string[], fuzzy: boolean, combineWith: 'AND' | 'OR'): SearchResult[] {
    return search.search({
      combineWith,
      queries: words.map(word => (/^\d{7,}$/.test(word)
        // A long number is a telephone number: with an area or country before it, its last ten or seven decide.
        ? { queries: [...new Set([word, word.slice(-10), word.slice(-7)])], combineWith: 'OR' as const, fields: ['phones', 'serials'], prefix: true, fuzzy: fuzzy ? 1 : false }
        : { queries: [word], prefix: true, fuzzy: fuzzy && !/^\d+$/.test(word) && word.length > 3 ? (word.length > 5 ? 2 : 1) : false })),
    })
  }
  return {
    /** Customers that the words could mean, best first. */
    find(question: string, limit = 8): Found[] {
      const words = spokenDigits(nameKey(question).split(' ').filter(Boolean)).slice(0, 8)
      if (words.length === 0) return []
      let found = ask(words, false, 'AND')
      if (found.length === 0) found = ask(words, true, 'AND')
      if (found.length === 0 && words.length > 1) {
        // Half of the words, or one that is long enough to mean somebody.
        const enough = Math.ceil(words.length / 2)
        found = ask(words, true, 'OR').filter(r => r.queryTerms.length >= enough || r.queryTerms.some(t => t.length > 4)).sort((a, b) => b.queryTerms.length - a.queryTerms.length || b.score - a.score)
      }
      return found.slice(0, limit).map(shape)
    },
    /** Puts in, or replaces, what is known of some customers. */
    put(changed: readonly MatchDoc[]): void {
      for (const doc of changed) {
        if (search.has(doc.id)) search.discard(doc.id)
        search.add(doc)
      }
    },
    take(id: string): void {
      if (search.has(id)) search.discard(id)
    },
    get size() { return search.documentCount },
  }
}
export type MatchIndex = ReturnType<typeof matchIndex>
