import MiniSearch, { type SearchResult } from 'minisearch'
import { searchKey } from '../text/searchKey'
import { spokenDigits } from '../text/spokenDigits'

/** What is known of a customer that somebody on the telephone could say. Numbers are digits only. */
export interface MatchDoc {
  id: string
  name: string
  contacts: string[]
  places: string[]
  mails: string[]
  phones: string[]
  serials: string[]
  other: string[]
}
export type MatchField = 'name' | 'contacts' | 'places' | 'mails' | 'phones' | 'serials' | 'other'
export interface Found {
  id: string
  score: number
  why: { field: MatchField; word: string }[]
}

const BOOST: Record<MatchField, number> = {
  name: 4,
  phones: 4,
  serials: 4,
  contacts: 3,
  mails: 2,
  places: 2,
  other: 1,
}
const FIELDS = Object.keys(BOOST) as MatchField[]
/** The words of a name as people type them: O'Duya is one word, with or without its sign. */
export const nameKey = (text: string): string => searchKey(text.replace(/['’`]/g, ''))

/** A field's words as they are searched. */
function termsOf(doc: MatchDoc, field: MatchField): string {
  if (field === 'phones') return doc.phones.flatMap(phoneTerms).join(' ')
  // A mail address is one word, and what stands before its sign are words; half of the world shares the rest.
  if (field === 'mails')
    return doc.mails.map((m) => `${m.toLowerCase()} ${nameKey(m.split('@')[0]!)}`).join(' ')
  // A serial number is typed with and without its dash.
  if (field === 'serials')
    return doc.serials.flatMap((s) => [nameKey(s), nameKey(s).replaceAll(' ', '')]).join(' ')
  const value = doc[field]
  return (typeof value === 'string' ? [value] : value).map(nameKey).join(' ')
}
/** The word with two neighbouring letters exchanged, the commonest slip that two edits would be needed for. */
const exchanged = (word: string): string[] =>
  Array.from(
    { length: word.length - 1 },
    (_, i) => word.slice(0, i) + word[i + 1] + word[i] + word.slice(i + 2),
  ).filter((w) => w !== word)
/** Every way in which a number is said: all of it, without the area, its last four. */
const phoneTerms = (digits: string): string[] =>
  digits.length < 4 ? [digits] : [...new Set([digits, digits.slice(-7), digits.slice(-4)])]

const MOST_WORDS = 8
/** The words of a question: mail addresses as they are, numbers as they are spoken. */
function wordsOf(question: string): string[] {
  const mails = question
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => /^[^@]+@/.test(w))
  const others = nameKey(question.replace(/\S+@\S*/g, ' '))
    .split(' ')
    .filter(Boolean)
  return [...mails, ...spokenDigits(others)].slice(0, MOST_WORDS)
}
/** One word of the question, as a query of its own. */
function queryOf(word: string, fuzzy: boolean) {
  const slip = fuzzy ? 1 : (false as const)
  if (word.includes('@')) return { queries: [word], fields: ['mails'], prefix: true, fuzzy: slip }
  // A long number is a telephone number: with an area or country before it, its last ten or seven decide.
  if (/^\d{7,}$/.test(word))
    return {
      queries: [...new Set([word, word.slice(-10), word.slice(-7)])],
      combineWith: 'OR' as const,
      fields: ['phones', 'serials'],
      prefix: true,
      fuzzy: slip,
    }
  const misspelt = fuzzy && !/^\d+$/.test(word) && word.length > 3
  return {
    queries: misspelt ? [word, ...exchanged(word)] : [word],
    combineWith: 'OR' as const,
    // The beginning of one or two signs would be half of everybody.
    prefix: word.length > 2,
    fuzzy: misspelt && (word.length > 10 ? 2 : 1),
  }
}
const foundOf = (r: SearchResult): Found => ({
  id: r.id as string,
  score: r.score,
  why: Object.entries(r.match).map(([word, fields]) => ({
    word,
    field: fields[0] as MatchField,
  })),
})
/** From that many customers on, words that a fiftieth of them share are common. */
const MANY = 2000
const COMMON_SHARE = 0.02
class Index {
  private readonly search = new MiniSearch<MatchDoc>({
    fields: FIELDS,
    extractField: (doc, field) => (field === 'id' ? doc.id : termsOf(doc, field as MatchField)),
    tokenize: (text) => text.split(' ').filter(Boolean),
    processTerm: (term) => term,
    searchOptions: { boost: BOOST, weights: { fuzzy: 0.3, prefix: 0.6 } },
  })
  // Words of places that very many share (a town, "road") are not searched but looked up in what the other words find.
  private readonly places = new Map<string, string>()
  private readonly frequency = new Map<string, number>()

  get size(): number {
    return this.search.documentCount
  }
  private remember(doc: MatchDoc): void {
    const words = termsOf(doc, 'places')
    this.places.set(doc.id, ` ${words} `)
    for (const word of new Set(words.split(' ')))
      this.frequency.set(word, (this.frequency.get(word) ?? 0) + 1)
  }
  private isCommon(word: string): boolean {
    return this.size > MANY && (this.frequency.get(word) ?? 0) > this.size * COMMON_SHARE
  }
  private ask(words: string[], fuzzy: boolean, combineWith: 'AND' | 'OR' = 'AND'): SearchResult[] {
    return this.search.search({ combineWith, queries: words.map((word) => queryOf(word, fuzzy)) })
  }
  /** A serial number in two parts: "vx 12345". */
  private bySerial(words: string[]): Found[] {
    const serial = /\b([a-z]{1,3}) (\d{4,})\b/.exec(words.join(' '))
    return serial ? this.ask([serial[1]! + serial[2]!], false).map(foundOf) : []
  }
  /** Who is found by the rare words, and lives where the common ones say. */
  private byRareWords(words: string[]): Found[] {
    const common = words.filter((w) => this.isCommon(w))
    const rare = words.filter((w) => !this.isCommon(w))
    if (!common.length || !rare.length) return []
    const there = common.map((word) => ({ field: 'places' as const, word }))
    return this.ask(rare, false)
      .filter((r) => common.every((w) => this.places.get(r.id as string)!.includes(` ${w}`)))
      .map(foundOf)
      .map((found) => ({ ...found, why: [...found.why, ...there] }))
  }
  /** Half of the words, or one that is long enough to mean somebody. */
  private byHalf(words: string[]): Found[] {
    const enough = Math.ceil(words.length / 2)
    return this.ask(words, true, 'OR')
      .filter((r) => r.queryTerms.length >= enough || r.queryTerms.some((t) => t.length > 4))
      .sort((a, b) => b.queryTerms.length - a.queryTerms.length || b.score - a.score)
      .map(foundOf)
  }
  /** Customers that the words could mean, best first. */
  find(question: string, limit = 8): Found[] {
    const words = wordsOf(question)
    const ways = [
      () => this.bySerial(words),
      () => this.byRareWords(words),
      () => this.ask(words, false).map(foundOf),
      () => this.ask(words, true).map(foundOf),
      () => (words.length > 1 ? this.byHalf(words) : []),
    ]
    for (const way of words.length ? ways : []) {
      const found = way()
      if (found.length) return found.slice(0, limit)
    }
    return []
  }
  /** Puts in, or replaces, what is known of some customers. */
  put(changed: readonly MatchDoc[]): void {
    for (const doc of changed) {
      if (this.search.has(doc.id)) this.search.discard(doc.id)
      this.remember(doc)
      this.search.add(doc)
    }
  }
  /** Puts in many without holding up everything else that the process does. */
  fill(many: readonly MatchDoc[]): Promise<void> {
    for (const doc of many) this.remember(doc)
    return this.search.addAllAsync(many, { chunkSize: 200 })
  }
  take(id: string): void {
    this.places.delete(id)
    if (this.search.has(id)) this.search.discard(id)
  }
}

/**
 * An index of customers that forgives typos and understands spoken numbers. Every word of the question must be found;
 * only where that finds nothing is a word allowed to be misspelt, and only after that may words be missing.
 * Ranking is BM25+ with names, numbers and serials weighing most (weights are our own).
 * @example
 * const index = matchIndex([{ id: 'a', name: 'Hallam Dairy', phones: ['6075550142'], … }])
 * index.find('five five five oh one four two')[0].id // 'a'
 */
export function matchIndex(docs: readonly MatchDoc[]): MatchIndex {
  const index = new Index()
  index.put(docs)
  return index
}
export type MatchIndex = Pick<Index, 'find' | 'fill' | 'put' | 'take' | 'size'>
