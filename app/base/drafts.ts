// What was typed and is not kept yet, kept in this browser for whoever typed it: a reload, an ended session or a window that fell loses
// nothing. It is gone once it is sent, or left on purpose.
import { DAY } from '~~/core/time/units'

interface Draft {
  /** what the form began with, and what stands in it */
  before: unknown
  typed: unknown
  at: number
}
const PREFIX = 'draft '
/** Whose drafts are read and written; nobody's while nobody is signed in. */
let person = ''
export function draftsOf(id: string): void {
  person = id
  forgetOld()
}
const OLD_MS = 14 * DAY
/** What nobody took up again for two weeks is not meant any more, whoever typed it. */
function forgetOld(): void {
  for (const key of Object.keys(localStorage).filter((one) => one.startsWith(PREFIX))) {
    const draft = parsed(localStorage.getItem(key))
    if (!draft || Date.now() - draft.at > OLD_MS) localStorage.removeItem(key)
  }
}
function parsed(text: string | null): Draft | null {
  try {
    return JSON.parse(text ?? 'null') as Draft | null
  } catch {
    return null
  }
}
const keyOf = (about: string) => `${PREFIX}${person} ${about}`

export const readDraft = (about: string): Draft | null =>
  person ? parsed(localStorage.getItem(keyOf(about))) : null
export function keepDraft(about: string, draft: Draft): void {
  if (!person) return
  try {
    localStorage.setItem(keyOf(about), JSON.stringify(draft))
  } catch {
    // A browser without room: the form itself still has what was typed, and asks before it is left.
  }
}
export const dropDraft = (about: string): void => localStorage.removeItem(keyOf(about))
/** Whoever signs out leaves none behind. */
export function dropDrafts(): void {
  for (const key of Object.keys(localStorage))
    if (key.startsWith(`${PREFIX}${person} `)) localStorage.removeItem(key)
}
