// The SQL by which lists are searched: words are looked up in indexes of words; only what no index
// can answer, a piece from the middle of a word, reads every row.
import { searchKey } from '../../core/text/searchKey'
import type { Value } from './pool'

/** A place where words are found, and how what is listed follows from it. */
export interface Finder {
  /** the identifier of what is listed */
  id: string
  from: string
  /** the columns of an index of words */
  words: string
}
export interface Search {
  /** what was typed */
  q: string
  finders: Finder[]
  /** all columns in which a word may stand, as they are called in the list */
  text: string[]
}
/** The index knows no shorter ones (innodb_ft_min_token_size). */
const SHORTEST = 3
const MOST_WORDS = 8
export const wordsOf = (q: string): string[] =>
  q
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .slice(0, MOST_WORDS)

/** A word as an index is asked for it, as it was typed or without its accents: whatever begins with it. */
export function beginning(word: string): string {
  const key = searchKey(word)
  return key === word || !key || key.includes(' ') ? `${word}*` : `${word}* ${key}*`
}
/** All of these words, each the beginning of one; empty where they are too short for an index. */
export const allBeginning = (words: readonly string[]): string =>
  words
    .filter((w) => w.length >= SHORTEST)
    .map((w) => `+(${beginning(w)})`)
    .join(' ')

interface Part {
  sql: string
  values: Value[]
}
const union = (search: Search, word: string): Part => ({
  sql: search.finders
    .map(
      (f) =>
        `SELECT ${f.id} AS id FROM ${f.from} WHERE MATCH(${f.words}) AGAINST (? IN BOOLEAN MODE)`,
    )
    .join(' UNION '),
  values: search.finders.map(() => beginning(word)),
})
/** A word anywhere in the text of a row; signs that mean something to LIKE mean themselves. */
function anywhere(search: Search, word: string): Part {
  const text = `CONCAT_WS(' ', ${search.text.join(', ')}) COLLATE utf8mb4_unicode_ci LIKE ?`
  const values = [...new Set([word, searchKey(word) || word])].map(
    (w) => `%${w.replace(/[\\%_]/g, '\\$&')}%`,
  )
  return { sql: `(${values.map(() => text).join(' OR ')})`, values }
}

export interface Searched {
  /** stands before FROM's own tables */
  from: string
  fromValues: Value[]
  where: string[]
  values: Value[]
  /** whether `where` needs all tables of the list */
  wide: boolean
}
/** Rows in which every word begins a word; words that are too short for the index are looked for in those rows. */
export function byWords(search: Search, id: string): Searched {
  const words = wordsOf(search.q)
  const long = words.filter((w) => w.length >= SHORTEST).map((w) => union(search, w))
  const short = words.filter((w) => w.length < SHORTEST).map((w) => anywhere(search, w))
  const tables = long.map((u, i) => `(${u.sql}) f${i}${i ? ` ON f${i}.id = f0.id` : ''}`)
  return {
    from: long.length ? `${tables.join(' JOIN ')} STRAIGHT_JOIN ` : '',
    fromValues: long.flatMap((u) => u.values),
    where: [...(long.length ? [`${id} = f0.id`] : []), ...short.map((s) => s.sql)],
    values: short.flatMap((s) => s.values),
    wide: short.length > 0,
  }
}
/** Rows in which every word stands anywhere, also within another. */
export function byPieces(search: Search): Searched {
  const words = wordsOf(search.q)
  // Where nothing but signs was typed, they are what is looked for.
  const parts = (words.length ? words : [search.q.trim()]).map((w) => anywhere(search, w))
  return {
    from: '',
    fromValues: [],
    where: parts.map((p) => p.sql),
    values: parts.flatMap((p) => p.values),
    wide: true,
  }
}
