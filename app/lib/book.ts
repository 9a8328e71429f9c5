// The one door to the price book in the browser's worker: started when something is first searched, told when the book changed.
import { wrap, type Remote } from 'comlink'
import { clear } from 'idb-keyval'
import type { BookService, BookState, Found } from '~/workers/book.worker'

export type { Found }
let worker: Worker | null = null
let service: Remote<BookService> | null = null
/** Fails where the worker's own script could not be had; what is asked of it then would never be answered. */
let lost: Promise<never> | null = null
export function bookService(): Remote<BookService> {
  if (!service) {
    const mine = new Worker(new URL('../workers/book.worker.ts', import.meta.url), {
      type: 'module',
    })
    worker = mine
    service = wrap<BookService>(mine)
    lost = new Promise((_, reject) => {
      mine.addEventListener('error', () => {
        if (worker === mine) worker = service = null
        mine.terminate()
        reject(new Error('The price book could not be opened.'))
      })
    })
    lost.catch(() => {})
  }
  return service
}
/** Loads the book for a person; begins anew where an earlier beginning failed. */
export const openBook = (person: string): Promise<BookState> => {
  const opened = bookService().refresh(person)
  return Promise.race([opened, lost!])
}
/** Entries by their ids, and whether what is not among them is gone: without today’s book nobody can say that. */
export async function entriesNamed(
  person: string,
  ids: readonly string[],
): Promise<{ found: Found[]; isSure: boolean }> {
  if (!ids.length) return { found: [], isSure: true }
  const state = await openBook(person).catch(() => null)
  if (!state) return { found: [], isSure: false }
  const found = await bookService().named([...ids])
  return { found, isSure: !state.kept && state.count > 0 }
}
/** Whoever signs out leaves nothing behind, also what an earlier page kept while nothing was searched on this one. */
export async function forgetBook(): Promise<void> {
  // A worker that could not be had has nothing, and answers nothing.
  if (service) await Promise.race([service.forget(), lost!]).catch(() => undefined)
  worker?.terminate()
  worker = service = null
  await clear().catch(() => undefined)
}
