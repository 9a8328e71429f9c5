// Writes whose answer did not come: nobody knows whether they were done. Asked for again by the same person in the same words, such a write goes
// out as it did before, with the identifiers and the key that it had, so that it is done once.
import { v7 } from 'uuid'

export interface Write {
  url: string
  body: string
  key: string
}
const MADE_MOST = 20_000
/** Identifiers that were made here, which are others when the same thing is asked for again. */
const made = new Set<string>()
const lost = new Map<string, Write>()
export function newId(): string {
  const id = v7()
  if (made.size >= MADE_MOST) made.clear()
  made.add(id)
  return id
}
const UUID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g
/** What a write asks for, whatever its own things are called. */
const wordsOf = ({ url, body }: Write) =>
  `${url} ${body}`.replace(UUID, (id) => (made.has(id) ? '' : id))

/** The write as it went out before, where its answer was lost; else as it is. */
export const asBefore = (write: Write): Write => lost.get(wordsOf(write)) ?? write
export const rememberLost = (write: Write): void => void lost.set(wordsOf(write), write)
/** Whether it makes something, by a name of its own; what makes nothing says how something is to be. */
const makes = ({ body }: Write) => (body.match(UUID) ?? []).some((id) => made.has(id))
/** It was answered. What was to be said of the same thing before it is over: said again, it is said anew, and not taken for what was lost. */
export function forgetLost(write: Write): void {
  lost.delete(wordsOf(write))
  for (const [words, other] of lost)
    if (other.url === write.url && !makes(other)) lost.delete(words)
}
/** Whoever signs out leaves nothing behind. */
export const forgetLostWrites = (): void => lost.clear()
