import type { Permission } from '../access/permissions'
import type { ActOf, Lifecycle, StateOf } from '../documents/lifecycle'

const states = ['draft', 'sent', 'expired', 'accepted', 'declined'] as const

/**
 * The life of a quote. `expired` is never stored: a quote that was sent has expired once the last day of
 * its price has passed. What was accepted is work, and changes there.
 */
export const quoteLifecycle = {
  states,
  acts: {
    change: { from: ['draft'], to: 'draft' },
    send: { from: ['draft'], to: 'sent' },
    accept: { from: ['sent'], to: 'accepted' },
    decline: { from: ['draft', 'sent', 'expired'], to: 'declined' },
    reopen: { from: ['sent', 'expired', 'declined'], to: 'draft' },
  },
} as const satisfies Lifecycle<(typeof states)[number]>

export type QuoteState = StateOf<typeof quoteLifecycle>
export type QuoteAct = ActOf<typeof quoteLifecycle>
/** What is stored; the rest follows from the day. */
export type StoredQuoteState = Exclude<QuoteState, 'expired'>

/** Which permission each act asks for. */
export const quotePermissions: Readonly<Record<QuoteAct, Permission>> = {
  change: 'quotes.write',
  send: 'quotes.send',
  accept: 'quotes.answer',
  decline: 'quotes.answer',
  reopen: 'quotes.send',
}
