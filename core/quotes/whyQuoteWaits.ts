import { quoteState, type QuoteState } from './quoteState'
import { daysBetween } from '../time/zone'

/**
 * Why a quote stands on the worklist and whether it presses: a draft that nobody sent, one without an answer, one whose
 * price is held for a few days more, or no longer. Empty when it waits for nothing.
 * Asking after a week, and pressing a draft after two days, is common practice of the trade's offices.
 * @param dates local dates, YYYY-MM-DD
 * @example whyQuoteWaits({ state: 'sent', expiresOn: '2026-12-24', createdOn: '2026-11-01', sentOn: '2026-11-12' }, '2026-11-24')
 * // { text: 'sent 12 days ago, no answer', late: true }
 */
export function whyQuoteWaits(
  quote: {
    state: Exclude<QuoteState, 'expired'>
    expiresOn: string
    createdOn: string
    sentOn: string | null
  },
  today: string,
): { text: string; late: boolean } {
  const ago = (date: string) => said(daysBetween(date, today))
  const state = quoteState(quote, today)
  if (state === 'draft')
    return {
      text: `begun ${ago(quote.createdOn)}, not sent`,
      late: daysBetween(quote.createdOn, today) > 2,
    }
  if (state === 'expired')
    return {
      text: `its price was held until ${daysBetween(quote.expiresOn, today) === 1 ? 'yesterday' : `${daysBetween(quote.expiresOn, today)} days ago`}: ask, and send it anew`,
      late: true,
    }
  if (state !== 'sent') return { text: '', late: false }
  const left = daysBetween(today, quote.expiresOn)
  const sent = daysBetween(quote.sentOn ?? quote.createdOn, today)
  if (left <= 3)
    return {
      text: `${left === 0 ? 'the price is held until today' : left === 1 ? 'the price is held until tomorrow' : `the price is held for ${left} days more`}, no answer`,
      late: true,
    }
  return { text: `sent ${ago(quote.sentOn ?? quote.createdOn)}, no answer`, late: sent >= 7 }
}
const said = (days: number): string =>
  days <= 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`
