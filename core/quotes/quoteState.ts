import type { QuoteState, StoredQuoteState } from './quoteLifecycle'

/**
 * What a quote is today: one that was sent and not answered has expired once the day up to which its price is held has passed.
 * An answer stands for ever; a draft does not expire, because nobody holds it.
 * @param today local date of the company, YYYY-MM-DD
 * @example quoteState({ state: 'sent', expiresOn: '2026-11-23' }, '2026-11-24') // 'expired'
 */
export function quoteState(
  quote: { state: StoredQuoteState; expiresOn: string },
  today: string,
): QuoteState {
  return quote.state === 'sent' && quote.expiresOn < today ? 'expired' : quote.state
}
