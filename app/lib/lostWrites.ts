// Writes whose answer did not come: nobody knows whether they were done. Asked for again in the same words a moment later, such a write goes
// out as it did before, with the identifiers and the key that it had, so that it is done once.
import { v7 } from 'uuid'
import { MINUTE } from '~~/core/time/units'

export interface Write {
  url: string
  body: string
  key: string
}
const MADE_MOST = 20_000
/** Whoever asks later than this does not try again, but means it anew. */
const TRIES_AGAIN_MS = 15 * MINUTE
/** Identifiers that were made here, which are others when the same thing is asked for again. */
const made = new Set<string>()
const lost = new Map<string, Write & { at: number }>()
export function newId(): string {
  const id = v7()
  if (made.size >= MADE_MOST) made.clear()
  made.add(id)
  return id
}
const UUID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g
/** What a write asks for of the thing at its address, whatever it calls what it makes there. */
const wordsOf = ({ url, body }: Write) =>
  `${url} ${body.replace(UUID, (id) => (made.has(id) ? '' : id))}`

/** The write as it went out before, where its answer was lost just now; else as it is. */
export function asBefore(write: Write): Write {
  const before = lost.size ? lost.get(wordsOf(write)) : undefined
  return before && Date.now() - before.at < TRIES_AGAIN_MS ? before : write
}
export const rememberLost = (write: Write): void =>
  void lost.set(wordsOf(write), { ...write, at: Date.now() })
/** It was refused: nothing came of it. */
export const forgetLost = (write: Write): void => void (lost.size && lost.delete(wordsOf(write)))
/** It was done. What was lost at its address before is over: said once more, it is meant anew. */
export function forgetLostAt({ url }: Write): void {
  for (const [words, other] of lost) if (other.url === url) lost.delete(words)
}
/** Whoever signs out, or is signed out, leaves nothing behind. */
export const forgetLostWrites = (): void => lost.clear()
