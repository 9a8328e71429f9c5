// How quotes are spoken of. A state or an act that is missing here does not compile.
import type { QuoteAct, QuoteState } from '~~/core/quotes/quoteLifecycle'

export const QUOTE_TONES: Readonly<Record<QuoteState, '' | 'good' | 'late'>> = {
  draft: '',
  sent: '',
  expired: 'late',
  accepted: 'good',
  declined: 'late',
}

/** The filters of the list: the states, and those that wait for somebody. */
export const QUOTE_FILTERS: Readonly<Record<QuoteState | 'open', string>> = {
  open: 'Waiting',
  draft: 'Drafts',
  sent: 'Sent',
  expired: 'Expired',
  accepted: 'Accepted',
  declined: 'Declined',
}

/** What the button of an act says; changing has none, since a draft is changed where it stands. */
export function actWords(act: QuoteAct, quote: { state: QuoteState; total: string }): string {
  const words: Readonly<Record<QuoteAct, string>> = {
    change: '',
    send: `Send quote ${quote.total}…`,
    accept: 'They said yes…',
    decline: quote.state === 'draft' ? 'They do not want it…' : 'They said no…',
    reopen: 'Take it back to change it',
  }
  return words[act]
}
