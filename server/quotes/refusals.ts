// Why an act on a quote is refused, by the act and the state that the quote is in.
import type { CodeOf } from '../../core/errors/errors'
import { conflict, type LedgerError } from '../../core/errors/LedgerError'
import { canAct } from '../../core/documents/lifecycle'
import { quoteLifecycle, type QuoteAct, type QuoteState } from '../../core/quotes/quoteLifecycle'
import { quoteState } from '../../core/quotes/quoteState'
import type { QuoteRow } from './queries'

type Refusal = [code: CodeOf<409>, sentence: string]
const SENT: Refusal = [
  'quote_sent',
  'The customer has this quote as it was sent. Take it back before changing it.',
]
const ANSWERED: Refusal = ['already_answered', 'This quote has its answer already.']
const ACCEPTED: Refusal = [
  'quote_accepted',
  'This quote was accepted; what changes now is changed on the work order.',
]
const DRAFT: Refusal = ['quote_draft', 'This quote is a draft; change it as it is.']
const UNSENT: Refusal = [
  'quote_draft',
  'This quote was never sent. Send it, or hand it over, before it is accepted.',
]
const EXPIRED: Refusal = [
  'quote_expired',
  'Its price is no longer held. Take it back and send it anew.',
]
const RESENT: Refusal = ['quote_sent', 'This quote has been sent already.']

/** What is said where the lifecycle forbids an act. */
const REFUSALS: Readonly<Record<QuoteAct, Partial<Readonly<Record<QuoteState, Refusal>>>>> = {
  change: { sent: SENT, expired: SENT, accepted: SENT, declined: SENT },
  send: { sent: RESENT, expired: RESENT, accepted: RESENT, declined: RESENT },
  accept: { draft: UNSENT, expired: EXPIRED, accepted: ANSWERED, declined: ANSWERED },
  decline: { accepted: ANSWERED, declined: ANSWERED },
  reopen: { draft: DRAFT, accepted: ACCEPTED },
}

/** Why an act may not happen to a quote today, or nothing. */
export function refusalOf(
  quote: Pick<QuoteRow, 'state' | 'expiresOn'>,
  act: QuoteAct,
  today: string,
): LedgerError | null {
  const state = quoteState(quote, today)
  if (canAct(quoteLifecycle, act, state)) return null
  const [code, sentence] = REFUSALS[act][state] ?? ANSWERED
  return conflict(code, sentence)
}
