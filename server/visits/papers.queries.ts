// SQL of what hangs on a work order: its invoices, signatures and photos.
import type { SignedPaper, SignPurpose } from '../../core/visits/signedPaper'
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
    purpose: SignPurpose
    /** the paper as it was signed, as it is kept */
    shown: string
    hash: string
    total: number
  },
) =>
  tx.run(
    `INSERT INTO signatures (id, work_order_id, visit_id, name, signed_at, taken_by, image, purpose,
      shown, hash, total_minor)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      s.id,
      s.workOrderId,
      s.visitId,
      s.name,
      sqlInstant(s.at),
      s.by,
      s.image,
      s.purpose,
      s.shown,
      s.hash,
      s.total,
    ],
  )
export interface SignatureRow {
  id: string
  name: string
  signedAt: string
  takenBy: string
  total: number
  purpose: SignPurpose
  /** nothing of papers from before they were kept whole */
  hash: string
}
/** A signed paper as it is kept; nothing of those from before, and of whoever was taken out. */
export const signedPaperById = (tx: Tx, id: string) =>
  tx.row<{ workOrderId: string; hash: string; shown: SignedPaper }>(
    `SELECT work_order_id, hash, shown FROM signatures WHERE id = ? AND hash <> '' AND image <> ''`,
    [id],
  )
export const signaturesIn = (workOrderId: string): ListIn => ({
  columns:
    's.id, s.name, s.signed_at, p.name AS takenBy, s.total_minor AS total, s.purpose, s.hash',
  from: 'signatures s JOIN people p ON p.id = s.taken_by WHERE s.work_order_id = ?',
  values: [workOrderId],
  order: 's.signed_at, s.id',
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
/** Whether the customer agreed to something of it: signed it, or accepted a quote. */
export const hasAgreedOn = async (tx: Tx, workOrderId: string): Promise<boolean> =>
  (await tx.row<{ agreed: number }>(
    `SELECT EXISTS (SELECT 1 FROM signatures WHERE work_order_id = ?) OR EXISTS (SELECT 1 FROM quotes
      WHERE work_order_id = ? AND state = 'accepted') AS agreed`,
    [workOrderId, workOrderId],
  ))!.agreed === 1
