import type { QuoteState, StoredQuoteState } from './quoteLifecycle'
import { quoteState } from './quoteState'
import { daysBetween } from '../time/zone'

/**
 * Why a quote stands on the worklist and whether it presses: a draft that nobody sent, one without an answer, one whose
 * price is held for a few days more, or no longer. Empty when it waits for nothing.
 * Asking after a week, and pressing a draft after two days, is common practice of the trade's offices.
 * @param dates local dates, YYYY-MM-DD
 * @example whyQuoteWaits({ state: 'sent', expiresOn: '2026-12-24', createdOn: '2026-11-01', sentOn: '2026-11-12', openedOn: null }, '2026-11-24')
 * // { text: 'sent 12 days ago, no answer', late: true }
 */
export function whyQuoteWaits(
  quote: {
    state: StoredQuoteState
    expiresOn: string
    createdOn: string
    sentOn: string | null
    /** when the customer read it first on its page */
    openedOn: string | null
  },
  today: string,
): { text: string; late: boolean } {
  return WHY[quoteState(quote, today)](quote, today)
}

type Waiting = Parameters<typeof whyQuoteWaits>[0]
type Why = { text: string; late: boolean }
const NOT_WAITING: Why = { text: '', late: false }
/** Why a quote waits, by its state: a state that is missing here does not compile. */
const WHY: Readonly<Record<QuoteState, (quote: Waiting, today: string) => Why>> = {
  draft: (quote, today) => ({
    text: `begun ${said(daysBetween(quote.createdOn, today))}, not sent`,
    late: daysBetween(quote.createdOn, today) > 2,
  }),
  sent: whySentWaits,
  expired: (quote, today) => ({
    text: `its price was held until ${said(daysBetween(quote.expiresOn, today))}: ask, and send it anew`,
    late: true,
  }),
  accepted: () => NOT_WAITING,
  declined: () => NOT_WAITING,
}

function whySentWaits(quote: Waiting, today: string): Why {
  const left = daysBetween(today, quote.expiresOn)
  const sentOn = quote.sentOn ?? quote.createdOn
  if (left <= 3) return { text: `${heldFor(left)}, no answer`, late: true }
  const sent = daysBetween(sentOn, today)
  const read = quote.openedOn ? `, read ${said(daysBetween(quote.openedOn, today))}` : ''
  return { text: `sent ${said(sent)}${read}, no answer`, late: sent >= 7 }
}
function heldFor(days: number): string {
  if (days === 0) return 'the price is held until today'
  if (days === 1) return 'the price is held until tomorrow'
  return `the price is held for ${days} days more`
}
function said(days: number): string {
  if (days <= 0) return 'today'
  return days === 1 ? 'yesterday' : `${days} days ago`
}
