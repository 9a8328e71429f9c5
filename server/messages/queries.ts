// SQL of messages: waiting, delivered, opened, failed.
import { sqlInstant, type Tx } from '../db/pool'
import { listRows } from '../db/queries'
import type { Finder } from '../db/search.queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { invoiceFacts } from '../invoices/facts'

export interface MessageRow {
  id: string
  kind: string
  customerId: string | null
  invoiceId: string | null
  quoteId: string | null
  recipients: string[]
  subject: string
  body: string
  attach: 'none' | 'invoice' | 'quote' | 'invitation' | 'export'
  channel: 'mail' | 'text' | 'letter'
  visitId: string | null
  /** what of its kind is enclosed, where nothing else says so */
  attachId: string | null
  state: string
  attempts: number
  createdAt: string
}
export const insertMessage = (
  tx: Tx,
  m: Omit<MessageRow, 'state' | 'attempts' | 'createdAt'> & { at: number },
) =>
  tx.run(
    `INSERT INTO messages (id, kind, customer_id, invoice_id, quote_id, recipients, subject, body,
      attach, attach_id, channel, visit_id, created_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      m.id,
      m.kind,
      m.customerId,
      m.invoiceId,
      m.quoteId,
      JSON.stringify(m.recipients),
      m.subject,
      m.body,
      m.attach,
      m.attachId,
      m.channel,
      m.visitId,
      sqlInstant(m.at),
    ],
  )
export async function messageById(tx: Tx, id: string): Promise<MessageRow | null> {
  const r = await tx.row<MessageRow>(
    `SELECT id, kind, customer_id, invoice_id, quote_id, recipients, subject, body, attach, attach_id,
      channel, visit_id, state, attempts, created_at
    FROM messages
    WHERE id = ?`,
    [id],
  )
  return r
}
export const markDelivered = (tx: Tx, id: string, now: number) =>
  tx.run(
    `UPDATE messages
    SET state = "delivered", delivered_at = ?, attempts = attempts + 1, error = ""
    WHERE id = ?`,
    [sqlInstant(now), id],
  )
export const markTried = (tx: Tx, id: string, error: string, failed: boolean) =>
  tx.run('UPDATE messages SET state = ?, attempts = attempts + 1, error = ? WHERE id = ?', [
    failed ? 'failed' : 'waiting',
    error.slice(0, 255),
    id,
  ])
export const tryAgain = async (tx: Tx, id: string) =>
  (
    await tx.run(
      'UPDATE messages SET state = "waiting", attempts = 0 WHERE id = ? AND state = "failed"',
      [id],
    )
  ).affected === 1
/** What failed, and nobody sends any more. */
export const setLetBe = async (tx: Tx, id: string) =>
  (await tx.run('UPDATE messages SET state = "let_be" WHERE id = ? AND state = "failed"', [id]))
    .affected === 1
export const messagesOfInvoice = async (tx: Tx, invoiceId: string) =>
  (
    await tx.rows<{
      id: string
      kind: string
      to: string[]
      state: string
      createdAt: string
      openedAt: string | null
    }>(
      `SELECT id, kind, recipients AS \`to\`, state, created_at, opened_at
      FROM messages
      WHERE invoice_id = ?
      ORDER BY created_at`,
      [invoiceId],
    )
  ).map((m) => ({ ...m, to: m.to.join(', ') }))
/** The customer opened the page that the mails link to: those that did not fail, and lead there, count as opened; the first time with a word in the history. */
export async function noteOpened(
  ctx: Ctx,
  invoice: { id: string; number: string; customerId: string; workOrderId: string | null },
): Promise<void> {
  const { affected } = await ctx.tx.run(
    `UPDATE messages SET opened_at = ?
    WHERE invoice_id = ? AND opened_at IS NULL AND state <> 'failed' AND kind <> 'receipt'
      AND channel <> 'letter'`,
    [sqlInstant(ctx.now), invoice.id],
  )
  if (affected)
    await record(ctx, {
      subject: 'invoice',
      id: invoice.id,
      workOrderId: invoice.workOrderId,
      customerId: invoice.customerId,
      fact: invoiceFacts.opened({ number: invoice.number }),
    })
}
const WORDS: Finder[] = [
  { id: 'o.id', from: 'messages o', words: 'o.subject' },
  { id: 'o.id', from: 'messages o', words: 'o.recipients' },
  { id: 'o.id', from: 'customers k JOIN messages o ON o.customer_id = k.id', words: 'k.search' },
]
export async function messagePage(
  tx: Tx,
  f: {
    q: string
    state?: string | undefined
    customerId?: string | undefined
    limit: number
    after: [string, string] | null
  },
) {
  const { rows, total } = await listRows<
    MessageRow & {
      customer: string | null
      error: string
      createdAt: string
      deliveredAt: string | null
      openedAt: string | null
    }
  >(tx, {
    select: `m.id, m.kind, c.name AS customer, m.recipients, m.subject, m.body, m.state, m.error,
        m.attach, m.channel, m.attempts, m.created_at, m.delivered_at, m.opened_at`,
    from: 'messages m LEFT JOIN customers c ON c.id = m.customer_id',
    where: [...(f.state ? ['m.state = ?'] : []), ...(f.customerId ? ['m.customer_id = ?'] : [])],
    values: [f.state, f.customerId].filter((value) => value !== undefined),
    search: { q: f.q, finders: WORDS, text: ['m.subject', 'm.recipients', 'c.search'] },
    by: 'm.created_at',
    id: 'm.id',
    descending: true,
    limit: f.limit,
    after: f.after,
  })
  return { rows, total }
}
/** Everybody to whom a visit was sent as an invitation. */
export const invitedTo = async (tx: Tx, visitId: string) => [
  ...new Set(
    (
      await tx.rows<{ recipients: string[] }>(
        `SELECT recipients
        FROM messages
        WHERE visit_id = ? AND kind = "visit_invitation"
        ORDER BY created_at`,
        [visitId],
      )
    ).flatMap((r) => r.recipients),
  ),
]
/** Whether a message of that kind was written about a visit since then. */
export const wasWritten = async (tx: Tx, kind: string, visitId: string, since: number) =>
  (await tx.row<{ id: string }>(
    'SELECT id FROM messages WHERE kind = ? AND visit_id = ? AND created_at >= ? LIMIT 1',
    [kind, visitId, sqlInstant(since)],
  )) !== null
/** What was written of when a visit is, and has not left yet, does not hold any more: it is not sent. Invitations say by themselves how it is now. */
export const letBeAboutVisit = (tx: Tx, visitId: string) =>
  tx.run(
    `UPDATE messages SET state = 'let_be'
    WHERE visit_id = ? AND state IN ('waiting', 'failed') AND kind <> 'visit_invitation'`,
    [visitId],
  )
