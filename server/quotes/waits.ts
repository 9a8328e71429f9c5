// Why a quote waits, in the firm's own days.
import { whyQuoteWaits } from '../../core/quotes/whyQuoteWaits'
import { localDate } from '../../core/time/zone'
import type { Ctx } from '../http/context'
import type { ShortQuote } from './queries'

export function quoteWaits(
  ctx: Ctx,
  q: Pick<ShortQuote, 'state' | 'expiresOn' | 'createdAt' | 'sentAt' | 'openedAt'>,
) {
  const on = (instant: string) => localDate(Date.parse(instant), ctx.company.timeZone)
  const facts = {
    ...{ state: q.state, expiresOn: q.expiresOn, createdOn: on(q.createdAt) },
    ...{ sentOn: q.sentAt && on(q.sentAt), openedOn: q.openedAt && on(q.openedAt) },
  }
  return whyQuoteWaits(facts, ctx.today)
}
