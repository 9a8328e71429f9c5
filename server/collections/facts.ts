// What is done about what is owed, and how the history says it.
import { facts, type Words } from '../http/facts'
import type { NoteRow } from './queries'

/** What each kind of note says. */
const NOTE_WORDS: Readonly<Record<NoteRow['kind'], string>> = {
  promise: 'Promised',
  dispute: 'Disputes it',
  settled: 'Dispute settled',
  reminder: 'Reminder sent',
  no_answer: 'No answer',
  note: 'Said',
}

interface Noted {
  kind: NoteRow['kind']
  text: string
  amount: string | null
  /** entries from before it was kept say the figure alone */
  currency?: string
  onDate: string | null
}
/** What was noted, in words: a promise with its sum and its day. */
export function sayNote(f: Noted, say: Pick<Words, 'day' | 'money'>): string {
  const sum = f.amount !== null && f.currency ? say.money(f.amount, f.currency) : f.amount
  const promised = f.kind === 'promise' && f.onDate ? ` ${sum} for ${say.day(f.onDate)}` : ''
  return `${NOTE_WORDS[f.kind]}${promised}${f.text ? `: ${f.text}` : ''}`
}

export const collectionFacts = facts('collection', {
  reminded: (f: { step: number }) => `Reminder ${f.step} sent`,
  noted: (f: Noted, say) => sayNote(f, say),
})
