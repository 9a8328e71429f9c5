// Mail and texts leave through an outbox in the database: written with the act that causes it, sent after the commit, tried again.
import { messageFacts } from './facts'
import type { Answer, Query } from '../../shared/api'
import type { Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { record } from '../http/queries'
import {
  insertMessage,
  markDelivered,
  messageById,
  messagePage,
  setLetBe,
  tryAgain,
  type MessageRow,
} from './queries'
import { notFound } from '../../core/errors/LedgerError'
import { addressLines } from '../../core/documents/letterhead'
import { sayDay } from '../../core/time/sayDay'
import { localDate } from '../../core/time/zone'
import type { Letter } from '../documents/letterPdf'
import { enqueue } from '../jobs/jobs'

/** Puts a mail into the outbox. `{link}` in its text becomes the customer's private link only when it leaves. */
const ATTACHED: Readonly<Record<MessageRow['attach'], string>> = {
  ...{ none: '', invoice: 'invoice PDF', quote: 'quote PDF' },
  ...{ invitation: 'invitation', export: 'file' },
}
export async function queueMail(
  ctx: Ctx,
  mail: {
    kind: string
    customerId: string | null
    invoiceId: string | null
    quoteId?: string
    visitId?: string
    to: string[]
    subject: string
    body: string
    attach: MessageRow['attach']
    attachId?: string
  },
): Promise<string> {
  const { to, quoteId = null, visitId = null, attachId = null, ...rest } = mail
  return queue(ctx, {
    ...{ ...rest, channel: 'mail', quoteId, visitId, attachId },
    recipients: [...new Set(to)],
  })
}
/** Puts a text into the outbox; whoever calls has made sure that this customer wants texts. */
export const queueText = (
  ctx: Ctx,
  text: { kind: string; customerId: string; visitId: string; to: string; body: string },
): Promise<string> =>
  queue(ctx, {
    kind: text.kind,
    channel: 'text',
    customerId: text.customerId,
    visitId: text.visitId,
    invoiceId: null,
    quoteId: null,
    recipients: [text.to],
    attachId: null,
    subject: '',
    body: text.body,
    attach: 'none',
  })
/** Keeps a letter: it is printed from what is kept, and is on its way once it is written. */
export async function keepLetter(
  ctx: Ctx,
  letter: Pick<MessageRow, 'kind' | 'customerId' | 'invoiceId' | 'subject' | 'body'> & {
    /** the lines of the address */
    to: string[]
  },
): Promise<string> {
  const { to: recipients, ...rest } = letter
  const id = ctx.id()
  const none = { quoteId: null, visitId: null, attach: 'none', attachId: null } as const
  await insertMessage(ctx.tx, { id, ...rest, ...none, recipients, channel: 'letter', at: ctx.now })
  await markDelivered(ctx.tx, id, ctx.now)
  return id
}
/** A letter as it was kept. */
export async function letterOf(ctx: Ctx, id: string): Promise<Letter> {
  const kept = await messageById(ctx.tx, id)
  if (kept?.channel !== 'letter') throw notFound('letter')
  const { name, phone, email, locale, timeZone } = ctx.company
  return {
    locale,
    from: { name, phone, email, address: addressLines(ctx.company) },
    to: kept.recipients,
    on: sayDay(localDate(Date.parse(kept.createdAt), timeZone), locale, 'written'),
    subject: kept.subject,
    body: kept.body,
  }
}
async function queue(
  ctx: Ctx,
  message: Omit<Parameters<typeof insertMessage>[1], 'id' | 'at'>,
): Promise<string> {
  const id = ctx.id()
  await insertMessage(ctx.tx, { id, ...message, at: ctx.now })
  await enqueue(ctx.tx, { kind: 'deliver', key: id, payload: { messageId: id } })
  return id
}
export async function listMessages(
  ctx: Ctx,
  query: Query<'messages'>,
): Promise<Answer<'messages'>> {
  const p = paging(query, ['created'], '-created')
  const { rows, total } = await messagePage(ctx.tx, {
    q: query.q ?? '',
    state: query.state,
    customerId: query.customerId,
    limit: p.limit,
    after: p.after,
  })
  return pageOf(rows, total, p.limit, (r) => ({
    id: r.id,
    kind: r.kind,
    channel: r.channel,
    customer: r.customer ?? '',
    to: r.recipients.join(', '),
    subject: r.subject,
    body: r.body,
    state: r.state === 'delivered' && r.openedAt ? 'opened' : r.state,
    error: r.error,
    createdAt: r.createdAt,
    deliveredAt: r.deliveredAt,
    openedAt: r.openedAt,
    attachment: ATTACHED[r.attach as MessageRow['attach']] ?? '',
  }))
}
export async function retry(ctx: Ctx, id: string): Promise<boolean> {
  const done = await tryAgain(ctx.tx, id)
  if (done) {
    await record(ctx, { subject: 'message', id, fact: messageFacts.retried() })
    await enqueue(ctx.tx, { kind: 'deliver', key: id, payload: { messageId: id } })
  }
  return done
}
/** A message that failed and is not to be sent any more. */
export async function letBe(ctx: Ctx, id: string): Promise<boolean> {
  const done = await setLetBe(ctx.tx, id)
  if (done) await record(ctx, { subject: 'message', id, fact: messageFacts.letBe() })
  return done
}
