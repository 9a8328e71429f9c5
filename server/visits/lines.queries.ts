// SQL of the lines of work orders, and what of them is billed.
import type { PriceSource } from '../../core/pricebook/priceOrder'
import type { Tx } from '../db/pool'
import { listOf, type ListIn } from '../db/queries'

export interface LineRow {
  id: string
  workOrderId: string
  visitId: string | null
  entryId: string | null
  kind: 'task' | 'part' | 'labour' | 'charge' | 'other'
  name: string
  unit: string
  quantity: string
  unitPrice: string
  bookPrice: string | null
  unitCost: string
  discountMinor: number
  /** what was taken off besides the price level is for */
  discountWords: string
  taxClass: string
  coversSeconds: number
  netMinor: number
  savingMinor: number
  promisedMinor: number
  done: boolean
  supplier: string
  partNumber: string
  priceSource: PriceSource
  /** where the price came from, in words; nothing when it is the book's as it stands */
  priceFrom: string
  /** its own; without one it is of its visit's */
  phaseId: string | null
  version: number
}
const LINE = `id, work_order_id, visit_id, entry_id, kind, name, unit, quantity, unit_price,
    book_price, unit_cost, discount_minor, discount_words, tax_class, covers_seconds, net_minor, saving_minor,
    promised_minor, done, supplier, part_number, price_source, price_from,
    phase_id, version`
export const linesOf = async (tx: Tx, workOrderId: string) =>
  tx.rows<LineRow>(
    `SELECT ${LINE} FROM work_lines WHERE work_order_id = ? AND NOT removed ORDER BY position, id`,
    [workOrderId],
  )
/** Also those that were taken out, which may be put back. */
export const linesEver = async (tx: Tx, workOrderId: string) =>
  tx.rows<LineRow & { removed: boolean }>(
    `SELECT ${LINE}, removed FROM work_lines WHERE work_order_id = ? ORDER BY position, id`,
    [workOrderId],
  )
export const lineById = async (tx: Tx, id: string, removed = false) =>
  tx.row<LineRow>(`SELECT ${LINE} FROM work_lines WHERE id = ? AND removed = ?`, [id, removed])
/** Appends a line; the work order's row is locked by the caller, so positions do not collide. */
export async function insertLine(
  tx: Tx,
  l: Omit<LineRow, 'version' | 'discountWords' | 'phaseId'>,
): Promise<void> {
  const { next } = (await tx.row<{ next: number }>(
    'SELECT COALESCE(MAX(position), 0) + 1 AS next FROM work_lines WHERE work_order_id = ?',
    [l.workOrderId],
  ))!
  await tx.run(
    `INSERT INTO work_lines (id, work_order_id, visit_id, entry_id, position, kind, name, unit,
      quantity, unit_price, book_price, unit_cost, discount_minor, tax_class, covers_seconds,
      net_minor, saving_minor, promised_minor, done, supplier, part_number, price_source,
      price_from)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      l.id,
      l.workOrderId,
      l.visitId,
      l.entryId,
      next,
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
      l.promisedMinor,
      l.done,
      l.supplier,
      l.partNumber,
      l.priceSource,
      l.priceFrom,
    ],
  )
}
export const updateLine = async (tx: Tx, l: LineRow, removed: boolean) =>
  (
    await tx.run(
      `UPDATE work_lines
      SET name = ?, quantity = ?, unit_price = ?, discount_minor = ?, discount_words = ?,
        covers_seconds = ?,
        net_minor = ?, saving_minor = ?, done = ?, removed = ?, price_source = ?,
        price_from = ?, version = version + 1
      WHERE id = ? AND version = ?`,
      [
        l.name,
        l.quantity,
        l.unitPrice,
        l.discountMinor,
        l.discountWords,
        l.coversSeconds,
        l.netMinor,
        l.savingMinor,
        l.done,
        removed,
        l.priceSource,
        l.priceFrom,
        l.id,
        l.version,
      ],
    )
  ).affected
export const promiseLines = (tx: Tx, workOrderId: string) =>
  tx.run(
    'UPDATE work_lines SET promised_minor = net_minor WHERE work_order_id = ? AND NOT removed',
    [workOrderId],
  )
export interface BilledLine {
  lineId: string | null
  invoiceId: string
  netMinor: number
  payable: number
  paid: number
  state: string
}
export const billedIn = (workOrderId: string): ListIn => ({
  columns: `il.work_line_id AS lineId, i.id AS invoiceId, il.net_minor, i.payable_minor AS payable,
      i.paid_minor AS paid, i.state`,
  from: `invoice_lines il
    JOIN invoices i ON i.id = il.invoice_id
    WHERE i.work_order_id = ? AND i.state <> 'void'`,
  values: [workOrderId],
  order: 'i.id, il.position',
})
/** What of each work line is on invoices, with the invoice's state of payment. */
export const billedLines = (tx: Tx, workOrderId: string) =>
  listOf<BilledLine>(tx, billedIn(workOrderId))
