// SQL of work orders: one, many, and what a customer’s come to.
import { WORK_WORD_NAMES, WORK_WORDS, type WorkWords } from '../../core/visits/workWords'
import type { WorkContact } from '../../core/visits/workContacts'
import type { CopiedDetails } from '../../core/customers/changedDetails'
import { sqlInstant, type Tx } from '../db/pool'
import { COST_RATE } from './clock.queries'
import type { ListIn } from '../db/queries'
import type { WorkOrderState } from '../../core/visits/workOrderState'

/** As what they are spoken to was not kept at first. */
type Contact = Omit<WorkContact, 'role'> & { role?: string }
/** Columns of the words that people write, in their order. */
const WORD_COLUMNS = WORK_WORD_NAMES.map((word) => WORK_WORDS[word].column)
const wordsIn = (w: WorkWords): string[] => WORK_WORD_NAMES.map((word) => w[word])
export interface WorkOrderRow extends WorkWords {
  id: string
  number: string
  customerId: string
  siteId: string
  kind: string
  contact: Contact
  otherContacts: WorkContact[]
  priceLevelId: string | null
  details: CopiedDetails
  ownPrices: Record<string, string>
  answers: { questionId: string; question: string; answer: string }[]
  custom: Record<string, string>
  equipmentId: string | null
  aboutLineId: string | null
  assignedTo: string | null
  source: string
  callbackOf: string | null
  followUp: string
  followUpReason: string
  followUpOn: string | null
  currency: string
  state: WorkOrderState
  cancelled: boolean
  closed: boolean
  toBill: number
  explainedSeconds: number
  uncoveredSeconds: number
  createdAt: string
  doneAt: string | null
  version: number
}
export const WORK = `w.id, w.number, w.customer_id, w.site_id, w.kind,
    ${WORD_COLUMNS.map((column) => `w.${column}`).join(', ')},
    w.contact, w.other_contacts, w.price_level_id, w.details, w.own_prices, w.answers, w.custom,
    w.equipment_id, w.about_line_id, w.assigned_to, w.source, w.callback_of, w.follow_up, w.follow_up_reason, w.follow_up_on, w.currency, w.state, w.cancelled, w.closed, w.to_bill_minor AS toBill,
    w.explained_seconds, w.uncovered_seconds, w.created_at, w.done_at, w.version`
export async function workOrderById(
  tx: Tx,
  id: string,
  lock = false,
): Promise<WorkOrderRow | null> {
  return await tx.row<WorkOrderRow>(
    `SELECT ${WORK} FROM work_orders w WHERE w.id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
}
export interface WorkOrderStart extends WorkWords {
  id: string
  number: string
  customerId: string
  siteId: string
  kind: string
  contact: object
  priceLevelId: string | null
  currency: string
  details: CopiedDetails
  answers: object[]
  equipmentId: string | null
  aboutLineId: string | null
  assignedTo: string | null
  source: string
  callbackOf?: string
  now: number
}
export const insertWorkOrder = (tx: Tx, w: WorkOrderStart) =>
  tx.run(
    `INSERT INTO work_orders (id, number, customer_id, site_id, kind, contact, price_level_id,
      currency, details, answers, equipment_id, about_line_id, assigned_to, source, callback_of,
      ${WORD_COLUMNS.join(', ')}, state, created_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?,
      ${WORD_COLUMNS.map(() => '?').join(', ')}, "needs_slot", ?)`,
    [
      w.id,
      w.number,
      w.customerId,
      w.siteId,
      w.kind,
      JSON.stringify(w.contact),
      w.priceLevelId,
      w.currency,
      JSON.stringify(w.details),
      JSON.stringify(w.answers),
      w.equipmentId,
      w.aboutLineId,
      w.assignedTo,
      w.source,
      w.callbackOf ?? null,
      ...wordsIn(w),
      sqlInstant(w.now),
    ],
  )
export interface CallBackRow {
  id: string
  number: string
  kind: string
  state: WorkOrderState
  siteSeconds: number
  material: string
  labour: string
}
/** Call-backs of a work order, with what they cost: the material of their lines, and the hours of whoever was there at their rates. */
export const callBacksIn = (workOrderId: string, now: number): ListIn => ({
  columns: `w.id, w.number, w.kind, w.state,
      (SELECT CAST(COALESCE(SUM(TIMESTAMPDIFF(SECOND, k.started_at, COALESCE(k.ended_at, ?))), 0) AS
      SIGNED) FROM clock_intervals k JOIN visits v ON v.id = k.visit_id WHERE v.work_order_id = w.id
      AND k.kind = 'on_site') AS siteSeconds,
      (SELECT COALESCE(SUM(l.unit_cost * l.quantity), 0) FROM work_lines l WHERE l.work_order_id =
      w.id AND NOT l.removed AND l.done AND l.kind <> 'labour') AS material,
      (SELECT COALESCE(SUM(TIMESTAMPDIFF(SECOND, k.started_at, COALESCE(k.ended_at, ?)) *
      ${COST_RATE} / 3600), 0) FROM clock_intervals k JOIN visits v ON v.id = k.visit_id
      WHERE v.work_order_id = w.id AND k.kind IN ('drive', 'on_site', 'fetch')) AS labour`,
  from: 'work_orders w WHERE w.callback_of = ?',
  values: [sqlInstant(now), sqlInstant(now), workOrderId],
  order: 'w.created_at',
  limit: 50,
  decimals: ['material', 'labour'],
})
/** Parks a work order in a list, to come back to on a day; an empty list takes it off. */
export const setFollowUp = async (
  tx: Tx,
  f: { id: string; version: number; list: string; reason: string; on: string | null },
) =>
  (
    await tx.run(
      `UPDATE work_orders
      SET follow_up = ?, follow_up_reason = ?, follow_up_on = ?, version = version + 1
      WHERE id = ? AND version = ?`,
      [f.list, f.reason, f.on, f.id, f.version],
    )
  ).affected
export const followUpLists = async (tx: Tx) =>
  (
    await tx.rows<{ name: string }>(
      `SELECT DISTINCT follow_up AS name FROM work_orders WHERE follow_up <> '' ORDER BY follow_up LIMIT 100`,
    )
  ).map((r) => r.name)
export const setOwnPrices = async (
  tx: Tx,
  id: string,
  version: number,
  prices: Record<string, string>,
) =>
  (
    await tx.run(
      'UPDATE work_orders SET own_prices = ?, version = version + 1 WHERE id = ? AND version = ?',
      [JSON.stringify(prices), id, version],
    )
  ).affected
export const setDetails = (tx: Tx, id: string, details: CopiedDetails) =>
  tx.run('UPDATE work_orders SET details = ?, version = version + 1 WHERE id = ?', [
    JSON.stringify(details),
    id,
  ])
/** What is said of a work order, what sort of work it is, and who is spoken to about it. */
export type WorkSaid = WorkWords & Pick<WorkOrderRow, 'kind' | 'contact' | 'otherContacts'>
export const setSaid = (tx: Tx, id: string, said: WorkSaid) =>
  tx.run(
    `UPDATE work_orders
    SET ${WORD_COLUMNS.map((column) => `${column} = ?`).join(', ')}, kind = ?, contact = ?,
      other_contacts = ?, version = version + 1
    WHERE id = ?`,
    [
      ...wordsIn(said),
      said.kind,
      JSON.stringify(said.contact),
      JSON.stringify(said.otherContacts),
      id,
    ],
  )
/** The firm's own fields, and their words for the search. */
export const setCustom = (
  tx: Tx,
  table: 'work_orders' | 'invoices',
  id: string,
  custom: Record<string, string>,
) =>
  tx.run(`UPDATE ${table} SET custom = ?, own_words = ? WHERE id = ?`, [
    JSON.stringify(custom),
    Object.values(custom).join(' '),
    id,
  ])
export const setWorkOrderFacts = (
  tx: Tx,
  id: string,
  {
    state,
    toBill,
    uncovered,
    doneAt,
  }: { state: WorkOrderState; toBill: number; uncovered: number; doneAt: number | null },
) =>
  tx.run(
    `UPDATE work_orders
    SET state = ?, to_bill_minor = ?, uncovered_seconds = ?, done_at = COALESCE(done_at, ?), version = version + 1
    WHERE id = ?`,
    [state, toBill, uncovered, doneAt === null ? null : sqlInstant(doneAt), id],
  )
export const addExplained = (tx: Tx, id: string, seconds: number) =>
  tx.run('UPDATE work_orders SET explained_seconds = explained_seconds + ? WHERE id = ?', [
    seconds,
    id,
  ])
/** Whether a work order was closed or cancelled by somebody's word. */
export const setEnd = (
  tx: Tx,
  id: string,
  { closed, cancelled }: { closed: boolean; cancelled: boolean },
) =>
  tx.run('UPDATE work_orders SET closed = ?, cancelled = ? WHERE id = ?', [closed, cancelled, id])
