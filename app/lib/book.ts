// The one door to the price book in the browser's worker: started when something is first searched, told when the book changed.
import { wrap, type Remote } from 'comlink'
import { clear } from 'idb-keyval'
import { onBeforeUnmount, onMounted, ref } from 'vue'
import type { SearchLimits } from '~~/core/pricebook/searchEntries'
import type { BookService, BookState, Found, ListLimits } from '~/workers/book.worker'
import { useSession } from '~/stores/session'
import { call } from './api'
import { onLive, SHOWS } from './live'

export type { Found }
let worker: Worker | null = null
let service: Remote<BookService> | null = null
export function bookService(): Remote<BookService> {
  if (!service) {
    worker = new Worker(new URL('../workers/book.worker.ts', import.meta.url), { type: 'module' })
    service = wrap<BookService>(worker)
  }
  return service
}
/** Whoever signs out leaves nothing behind, also what an earlier page kept while nothing was searched on this one. */
export async function forgetBook(): Promise<void> {
  await service?.forget()
  worker?.terminate()
  worker = service = null
  await clear().catch(() => undefined)
}
/** The book for a screen: loaded when it opens, asked again when something changed; `turn` counts its states. */
export function useBook() {
  const session = useSession()
  const state = ref<BookState | null>(null)
  const turn = ref(0)
  let open = true
  async function refresh() {
    const got = await bookService().refresh(session.me!.person.id)
    if (!open) return
    state.value = got
    turn.value++
  }
  onMounted(refresh)
  onLive(() => void refresh(), 0, SHOWS.book)
  onBeforeUnmount(() => {
    open = false
  })
  /** Keeps an entry at hand for whoever is signed in; the worker is told at once, the server a moment later. */
  async function pin(id: string, on: boolean) {
    await bookService().pin(id, on)
    turn.value++
    await call('pinEntry', { params: { id }, body: { on } }).catch(refresh)
  }
  return {
    state,
    turn,
    refresh,
    pin,
    find: (words: string, limits: SearchLimits = {}) => bookService().find(words, limits),
    list: (words: string, limits: ListLimits) => bookService().list(words, limits),
  }
}
