// The price book for a screen, for whoever is signed in.
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import type { SearchLimits } from '~~/core/pricebook/searchEntries'
import { useSession } from '~/stores/session'
import type { BookState, ListLimits } from '~/workers/book.worker'
import { call } from './api'
import { bookService, openBook } from './book'
import { onLive, SHOWS } from './live'
import { sayUnanswered } from './unanswered'

/** Loaded when it opens, asked again when something changed; `turn` counts its states. */
export function useBook() {
  const session = useSession()
  const state = ref<BookState | null>(null)
  const turn = ref(0)
  let open = true
  const unopened = ref<{ message: string } | null>(null)
  async function refresh() {
    const got = await openBook(session.me!.person.id).catch((error: Error) => error)
    if (!open) return
    unopened.value = got instanceof Error ? got : null
    if (got instanceof Error) return
    state.value = got
    turn.value++
  }
  const message = 'The server does not answer. This is the price book as it was last here.'
  sayUnanswered(
    computed(() => unopened.value ?? (state.value?.kept ? { message } : null)),
    refresh,
  )
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
