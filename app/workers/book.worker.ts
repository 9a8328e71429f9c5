// The price book in the browser: kept here, searched here, so that a search needs neither the server nor the screen's thread, nor a signal.
import { expose } from 'comlink'
import { clear, get, set } from 'idb-keyval'
import { categoryTree, inCategory } from '~~/core/pricebook/inCategory'
import { searchEntries, type SearchLimits } from '~~/core/pricebook/searchEntries'
import type { Answer } from '~~/shared/api'

type Whole = Answer<'wholeBook'>
export type Found = Whole['items'][number] & { mine: boolean }
export interface BookState {
  count: number
  /** what is shown was kept here: the server could not be asked */ kept: boolean
  categories: ReturnType<typeof categoryTree>
}
export type SortKey = 'code' | 'name' | 'category' | 'price' | 'cost' | 'used' | 'lastSold'
export interface ListLimits {
  kind?: string
  category?: string
  sort?: SortKey
  descending?: boolean
}

let book: Whole | null = null
let byId = new Map<string, Found>()
let find: ReturnType<typeof searchEntries> | null = null
function take(whole: Whole): void {
  book = whole
  const mine = new Set(whole.mine)
  byId = new Map(whole.items.map((e) => [e.id, { ...e, mine: mine.has(e.id) }]))
  tree = categoryTree(whole.items.map((e) => e.category))
  find = searchEntries(whole.items.map((e) => ({ ...e, pinned: e.pinned || mine.has(e.id) })))
}
/** One question at a time: of two that overlap, the later must not be answered with what the earlier found. */
let turn: Promise<unknown> = Promise.resolve()
const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
  const next = turn.then(work)
  turn = next.catch(() => {})
  return next
}
let tree: BookState['categories'] = []
const stateOf = (kept: boolean): BookState => ({ count: byId.size, kept, categories: tree })
const AMOUNTS = new Set<SortKey>(['price', 'cost', 'used'])
const service = {
  /** Loads what is kept for a person, asks the server if it changed, and keeps what it says. */
  refresh: (person: string): Promise<BookState> =>
    inTurn(async () => {
      const key = `book ${person}`
      if (!book) {
        // A browser that keeps nothing (a private window) still searches while it is open.
        const kept = await get<Whole>(key).catch(() => undefined)
        if (kept) take(kept)
      }
      try {
        const response = await fetch(
          `/api/v1/price-book/whole${book ? `?stamp=${encodeURIComponent(book.stamp)}` : ''}`,
        )
        if (!response.ok) throw new Error(String(response.status))
        const got = (await response.json()) as Whole
        if (!got.same || !book || got.mine.join() !== book.mine.join()) {
          take(got.same && book ? { ...book, mine: got.mine } : got)
          await set(key, book).catch(() => undefined)
        }
        return stateOf(false)
      } catch {
        return stateOf(true)
      }
    }),
  /** The best entries for some words; without words what is at hand, or what is used most of a kind and category. */
  find: (words: string, limits: SearchLimits): Found[] => {
    if (words) return find?.(words, limits).map((id) => byId.get(id)!) ?? []
    const { kind, category, limit } = limits
    const asked = (e: Found) =>
      (!kind || e.kind === kind) && (!category || inCategory(e.category, category))
    const isAtHand = (e: Found) => e.pinned || e.mine
    // Who says no kind and no category means what is at hand; else that stands first.
    return [...byId.values()]
      .filter((e) => asked(e) && (kind || category || isAtHand(e)))
      .sort(
        (a, b) =>
          Number(b.mine) - Number(a.mine) ||
          Number(isAtHand(b)) - Number(isAtHand(a)) ||
          b.used - a.used,
      )
      .slice(0, limit)
  },
  /** Entries by identifier, those that are in the book. */
  named: (ids: readonly string[]): Found[] => ids.flatMap((id) => byId.get(id) ?? []),
  /** The whole book, or all of it that fits, as a list to look through: by words the best first, else in an order. */
  list: (
    words: string,
    { kind, category, sort = 'code', descending = false }: ListLimits,
  ): Found[] => {
    if (words) return service.find(words, { limit: 50_000, kind, category })
    const rows = [...byId.values()].filter(
      (e) => (!kind || e.kind === kind) && (!category || inCategory(e.category, category)),
    )
    const compare = new Intl.Collator('en', { numeric: true }).compare
    const by = AMOUNTS.has(sort)
      ? (a: Found, b: Found) => Number(a[sort] ?? 0) - Number(b[sort] ?? 0)
      : (a: Found, b: Found) => compare(String(a[sort] ?? ''), String(b[sort] ?? ''))
    return rows.sort((a, b) => (descending ? by(b, a) : by(a, b)) || compare(a.code, b.code))
  },
  pin: (id: string, on: boolean): void => {
    const e = byId.get(id)
    if (!book || !e) return
    take({ ...book, mine: on ? [...book.mine, id] : book.mine.filter((m) => m !== id) })
  },
  /** Whoever signs out leaves nothing behind. */
  forget: () =>
    inTurn(async () => {
      book = find = null
      byId = new Map()
      await clear().catch(() => undefined)
    }),
}
export type BookService = typeof service
expose(service)
