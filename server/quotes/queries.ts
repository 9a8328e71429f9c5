// SQL of quotes and their lines.
import type { QuoteState, StoredQuoteState } from '../../core/quotes/quoteLifecycle'
import { sqlInstant, type Tx, type Value } from '../db/pool'
import { listOf, listRows, type ListIn } from '../db/queries'
import type { Finder } from '../db/search.queries'
import type { WorkOrderRow } from '../visits/queries'
import type { PricedLine } from '../pricebook/priceLines'

export interface QuoteRow {
  id: string
  number: string
  customerId: string
  siteId: string
  workOrderId: string | null
  ownerId: string | null
  owner: string | null
  contact: { name: string; phone: string }
  answers: WorkOrderRow['answers']
  /** what it is about: equipment there, or what was supplied there before */
  equipmentId: string | null
  aboutLineId: string | null
  title: string
  scope: string
  orderNumber: string
  source: string
  state: StoredQuoteState
  expiresOn: string
  priceLevelId: string | null
  taxExempt: boolean
  currency: string
  net: number
  total: number
  frozen: object | null
  sentAt: string | null
  answer: string
  createdAt: string
  version: number
  /** whether the customer has a page of it */
  hasLink: boolean
  /** when somebody read it there first, since it was sent */
  openedAt: string | null
}
const QUOTE = `q.id, q.number, q.customer_id, q.site_id, q.work_order_id, q.owner_id,
    (SELECT p.name FROM people p WHERE p.id = q.owner_id) AS owner, q.contact, q.answers, q.equipment_id, q.about_line_id, q.title, q.scope,
    q.order_number, q.source, q.state, q.expires_on, q.price_level_id, q.tax_exempt, q.currency,
    q.net_minor AS net, q.total_minor AS total, q.frozen, q.sent_at, q.answer, q.created_at,
    q.version, q.token_hash IS NOT NULL AS hasLink, q.opened_at`
export async function quoteById(tx: Tx, id: string, lock = false): Promise<QuoteRow | null> {
  return await tx.row<QuoteRow>(
    `SELECT ${QUOTE} FROM quotes q WHERE q.id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
}
export const sentQuotes = (tx: Tx) =>
  tx.rows<{ id: string; number: string; createdAt: string }>(
    'SELECT id, number, created_at FROM quotes WHERE frozen IS NOT NULL ORDER BY id',
  )
export const quoteByToken = (tx: Tx, hash: string, lock: boolean) =>
  tx.row<QuoteRow>(
    `SELECT ${QUOTE} FROM quotes q WHERE q.token_hash = ?${lock ? ' FOR UPDATE' : ''}`,
    [hash],
  )
/** Sent, it has its page, and nobody has read this version of it there. */
export const linkQuote = (tx: Tx, id: string, hash: string) =>
  tx.run('UPDATE quotes SET token_hash = ?, opened_at = NULL WHERE id = ?', [hash, id])
export const markOpened = async (tx: Tx, id: string, at: number) =>
  (
    await tx.run('UPDATE quotes SET opened_at = ? WHERE id = ? AND opened_at IS NULL', [
      sqlInstant(at),
      id,
    ])
  ).affected
export const insertQuote = (
  tx: Tx,
  q: Pick<
    QuoteRow,
    | 'id'
    | 'number'
    | 'customerId'
    | 'siteId'
    | 'workOrderId'
    | 'ownerId'
    | 'contact'
    | 'answers'
    | 'equipmentId'
    | 'aboutLineId'
    | 'title'
    | 'scope'
    | 'orderNumber'
    | 'source'
    | 'expiresOn'
    | 'priceLevelId'
    | 'taxExempt'
    | 'currency'
  > & { now: number },
) =>
  tx.run(
    `INSERT INTO quotes (id, number, customer_id, site_id, work_order_id, owner_id, contact, answers,
      equipment_id, about_line_id, title, scope, order_number, source, expires_on, price_level_id, tax_exempt, currency, created_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      q.id,
      q.number,
      q.customerId,
      q.siteId,
      q.workOrderId,
      q.ownerId,
      JSON.stringify(q.contact),
      JSON.stringify(q.answers),
      q.equipmentId,
      q.aboutLineId,
      q.title,
      q.scope,
      q.orderNumber,
      q.source,
      q.expiresOn,
      q.priceLevelId,
      q.taxExempt,
      q.currency,
      sqlInstant(q.now),
    ],
  )
export const updateQuote = (tx: Tx, q: QuoteRow) =>
  tx.run(
    `UPDATE quotes
    SET customer_id = ?, owner_id = ?, title = ?, scope = ?, order_number = ?, expires_on = ?,
      price_level_id = ?, tax_exempt = ?, net_minor = ?, total_minor = ?, version = version + 1
    WHERE id = ?`,
    [
      q.customerId,
      q.ownerId,
      q.title,
      q.scope,
      q.orderNumber,
      q.expiresOn,
      q.priceLevelId,
      q.taxExempt,
      q.net,
      q.total,
      q.id,
    ],
  )
export const setQuoteState = (
  tx: Tx,
  id: string,
  q: {
    state: QuoteRow['state']
    frozen: object | null
    sentAt: number | null
    answeredAt: number | null
    answer: string
    workOrderId: string | null
  },
) =>
  tx.run(
    `UPDATE quotes
    SET state = ?, frozen = ?, sent_at = ?, answered_at = ?, answer = ?, work_order_id = ?,
      version = version + 1
    WHERE id = ?`,
    [
      q.state,
      q.frozen && JSON.stringify(q.frozen),
      q.sentAt && sqlInstant(q.sentAt),
      q.answeredAt && sqlInstant(q.answeredAt),
      q.answer,
      q.workOrderId,
      id,
    ],
  )
export const quoteLines = (tx: Tx, quoteId: string) =>
  tx.rows<PricedLine>(
    `SELECT id, entry_id, kind, name, unit, quantity, unit_price, book_price, unit_cost,
      discount_minor, tax_class, covers_seconds, net_minor, saving_minor, supplier, part_number,
      price_source, price_from
    FROM quote_lines
    WHERE quote_id = ?
    ORDER BY position`,
    [quoteId],
  )
export async function putQuoteLines(tx: Tx, quoteId: string, lines: PricedLine[]): Promise<void> {
  await tx.run('DELETE FROM quote_lines WHERE quote_id = ?', [quoteId])
  if (lines.length) {
    await tx.many(
      `INSERT INTO quote_lines (id, quote_id, position, entry_id, kind, name, unit, quantity,
        unit_price, book_price, unit_cost, discount_minor, tax_class, covers_seconds, net_minor,
        saving_minor, supplier, part_number, price_source, price_from)
      VALUES ?`,
      lines.map((l, i) => [
        l.id,
        quoteId,
        i + 1,
        l.entryId,
        l.kind,
        l.name,
        l.unit,
        l.quantity,
        l.unitPrice,
        l.bookPrice,
        l.unitCost,
        l.discountMinor,
        l.taxClass,
        l.coversSeconds,
        l.netMinor,
        l.savingMinor,
        l.supplier,
        l.partNumber,
        l.priceSource,
        l.priceFrom,
      ]),
    )
  }
}
export type ShortQuote = Pick<
  QuoteRow,
  'id' | 'number' | 'title' | 'state' | 'expiresOn' | 'total' | 'createdAt' | 'sentAt' | 'openedAt'
>
const SHORT = {
  columns:
    'id, number, title, state, expires_on, total_minor AS total, created_at, sent_at, opened_at',
  instants: ['createdAt', 'sentAt', 'openedAt'],
}
export const quotesOfWorkIn = (workOrderId: string): ListIn => ({
  ...SHORT,
  from: 'quotes WHERE work_order_id = ?',
  values: [workOrderId],
  order: 'created_at',
})
export const quotesOfWork = (tx: Tx, workOrderId: string) =>
  listOf<ShortQuote>(tx, quotesOfWorkIn(workOrderId))
/** Of a customer: those that they pay for, and those for their sites. */
export const quotesOfCustomerIn = (customerId: string): ListIn => ({
  ...SHORT,
  from: 'quotes WHERE customer_id = ? OR site_id IN (SELECT id FROM sites WHERE customer_id = ?)',
  values: [customerId, customerId],
  order: 'created_at DESC',
  limit: 50,
})
/** The filters of the list that are not just a state as it is stored. */
const FILTERS: Partial<Readonly<Record<QuoteState | 'open', string>>> = {
  open: 'q.state IN ("draft", "sent")',
  sent: 'q.state = "sent" AND q.expires_on >= ?',
  expired: 'q.state = "sent" AND q.expires_on < ?',
}
const WORDS: Finder[] = [
  { id: 'o.id', from: 'quotes o', words: 'o.number, o.title, o.order_number' },
  { id: 'o.id', from: 'customers k JOIN quotes o ON o.customer_id = k.id', words: 'k.search' },
]
export async function quotePage(
  tx: Tx,
  f: {
    q: string
    state?: QuoteState | 'open' | undefined
    today: string
    descending: boolean
    limit: number
    after: [string, string] | null
  },
) {
  const where: string[] = []
  const values: Value[] = []
  if (f.state) {
    const filter = FILTERS[f.state]
    where.push(filter ?? 'q.state = ?')
    if (!filter) values.push(f.state)
    else if (filter.includes('?')) values.push(f.today)
  }
  return listRows<ShortQuote & { customer: string; owner: string | null }>(tx, {
    select: `q.id, q.number, q.title, q.state, q.expires_on, q.total_minor AS total, q.created_at,
        q.sent_at, q.opened_at, c.name AS customer,
        (SELECT p.name FROM people p WHERE p.id = q.owner_id) AS owner`,
    from: 'quotes q STRAIGHT_JOIN customers c ON c.id = q.customer_id',
    countFrom: 'quotes q',
    where,
    values,
    search: { q: f.q, finders: WORDS, text: ['q.number', 'q.title', 'q.order_number', 'c.search'] },
    by: 'q.created_at',
    id: 'q.id',
    descending: f.descending,
    limit: f.limit,
    after: f.after,
  })
}
