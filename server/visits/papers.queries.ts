// SQL of what hangs on a work order: its invoices, signatures and photos.
import type { StoredInvoiceState } from '../../core/invoices/invoiceLifecycle'
import { sqlInstant, type Tx } from '../db/pool'
import { listOf, type ListIn } from '../db/queries'

export interface InvoiceOfWork {
  id: string
  number: string
  issueOn: string
  dueOn: string
  total: number
  open: number
  paid: number
  sent: boolean
  state: StoredInvoiceState
}
export const invoicesIn = (workOrderId: string): ListIn => ({
  columns:
    'id, number, issue_on, due_on, total_minor AS total, open_minor AS open, paid_minor AS paid, sent, state',
  from: 'invoices WHERE work_order_id = ?',
  values: [workOrderId],
  order: 'issue_on, id',
  booleans: ['sent'],
})
export const invoicesOfWork = (tx: Tx, workOrderId: string) =>
  listOf<InvoiceOfWork>(tx, invoicesIn(workOrderId))
export const insertSignature = (
  tx: Tx,
  s: {
    id: string
    workOrderId: string
    visitId: string | null
    name: string
    at: number
    by: string
    image: Buffer
    shown: unknown
    total: number
  },
) =>
  tx.run(
    `INSERT INTO signatures (id, work_order_id, visit_id, name, signed_at, taken_by, image, shown,
      total_minor)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      s.id,
      s.workOrderId,
      s.visitId,
      s.name,
      sqlInstant(s.at),
      s.by,
      s.image,
      JSON.stringify(s.shown),
      s.total,
    ],
  )
export interface SignatureRow {
  id: string
  name: string
  signedAt: string
  takenBy: string
  total: number
}
export const signaturesIn = (workOrderId: string): ListIn => ({
  columns: 's.id, s.name, s.signed_at, p.name AS takenBy, s.total_minor AS total',
  from: 'signatures s JOIN people p ON p.id = s.taken_by WHERE s.work_order_id = ?',
  values: [workOrderId],
  order: 's.signed_at',
  instants: ['signedAt'],
})
export const signatureImage = (tx: Tx, id: string) =>
  tx.row<{ workOrderId: string; image: Buffer }>(
    'SELECT work_order_id, image FROM signatures WHERE id = ?',
    [id],
  )
export const insertPhoto = (
  tx: Tx,
  p: { id: string; workOrderId: string; mime: string; bytes: Buffer; by: string; at: number },
) =>
  tx.run('INSERT INTO photos VALUES (?, ?, ?, ?, ?, ?)', [
    p.id,
    p.workOrderId,
    p.mime,
    p.bytes,
    p.by,
    sqlInstant(p.at),
  ])
export interface PhotoRow {
  id: string
  takenAt: string
}
export const photosIn = (workOrderId: string): ListIn => ({
  columns: 'id, taken_at',
  from: 'photos WHERE work_order_id = ?',
  values: [workOrderId],
  order: 'taken_at',
  limit: 100,
  instants: ['takenAt'],
})
export const photosOf = (tx: Tx, workOrderId: string) => listOf<PhotoRow>(tx, photosIn(workOrderId))
export const photoById = (tx: Tx, id: string) =>
  tx.row<{ workOrderId: string; mime: string; bytes: Buffer }>(
    'SELECT work_order_id, mime, bytes FROM photos WHERE id = ?',
    [id],
  )
