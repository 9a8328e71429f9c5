// What is done about what is owed, and how the history says it.
import { facts } from '../http/facts'
import type { NoteRow } from './queries'

/** What each kind of note says. */
export const NOTE_WORDS: Readonly<Record<NoteRow['kind'], string>> = {
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
  onDate: string | null
}

export const collectionFacts = facts('collection', {
  reminded: (f: { step: number }) => `Reminder ${f.step} sent`,
  noted: (f: Noted, say) => {
    const promised = f.kind === 'promise' ? ` ${f.amount} for ${say.day(f.onDate!)}` : ''
    return `${NOTE_WORDS[f.kind]}${promised}${f.text ? `: ${f.text}` : ''}`
  },
})
