// The one door to the price book in the browser's worker: started when something is first searched, told when the book changed.
import { wrap, type Remote } from 'comlink'
import { clear } from 'idb-keyval'
import type { BookService, Found } from '~/workers/book.worker'

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
