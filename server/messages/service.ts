// Mail leaves through an outbox in the database: written with the act that causes it, sent after the commit, tried again.
import type { Answer, Query } from '../../shared/api'
import type { Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { record } from '../http/queries'
import { insertMessage, messagePage, tryAgain } from './queries'
import { poke } from './sender'

/** Puts a mail into the outbox. `{link}` in its text becomes the customer's private link only when it leaves. */
export async function queueMail(ctx: Ctx, mail: { kind: string, customerId: string | null, invoiceId: string | null, quoteId?: string, to: string[], subject: string, body: string, attach: 'none' | 'invoice' | 'quote' }): Promise<string> {
  const id = ctx.id()
  const { to, quoteId = null, ...rest } = mail
  await insertMessage(ctx.tx, { id, ...rest, quoteId, recipients: [...new Set(to)], at: ctx.now })
  ctx.tx.afterCommit(poke)
  return id
}
export async function listMessages(ctx: Ctx, query: Query<'messages'>): Promise<Answer<'messages'>> {
  const p = paging(query, ['created'], '-created')
  const { rows, total } = await messagePage(ctx.tx, { q: query.q ?? '', limit: p.limit, after: p.after })
  return pageOf(rows, total, p.limit, r => ({ id: r.id, kind: r.kind, customer: r.customer ?? '', to: r.recipients.join(', '), subject: r.subject, body: r.body, state: r.state === 'delivered' && r.openedAt ? 'opened' : r.state, error: r.error, createdAt: r.createdAt, deliveredAt: r.deliveredAt, openedAt: r.openedAt, attachment: r.attach === 'none' ? '' : `${r.attach} PDF` }))
}
export async function retry(ctx: Ctx, id: string): Promise<boolean> {
  const done = await tryAgain(ctx.tx, id, ctx.now)
  if (done) {
    await record(ctx, { subject: 'message', id, text: 'Message tried again' })
    ctx.tx.afterCommit(poke)
  }
  return done
}
