// SQL of how papers look, and of the last paper of each kind.
import type { PaperLayout } from '../../core/documents/paperLayout'
import type { PaperKind } from '../../core/documents/paperWords'
import type { InvoicePaper } from '../../core/invoices/invoicePaper'
import type { QuotePaper } from '../../core/quotes/quoteDocument'
import type { SignedPaper } from '../../core/visits/signedPaper'
import type { Tx } from '../db/pool'

export interface LayoutRow {
  id: string
  kind: PaperKind
  name: string
  layout: PaperLayout
  usual: boolean
  retired: boolean
  version: number
}
const MOST = 60
export const layoutRows = async (tx: Tx): Promise<LayoutRow[]> =>
  (
    await tx.rows<LayoutRow>(
      `SELECT id, kind, name, layout, is_usual AS usual, retired, version
      FROM paper_layouts
      ORDER BY kind, name
      LIMIT ${MOST}`,
    )
  ).map((row) => ({ ...row, usual: Boolean(row.usual), retired: Boolean(row.retired) }))
export const putLayout = (tx: Tx, l: LayoutRow) =>
  tx.run(
    `INSERT INTO paper_layouts (id, kind, name, layout, is_usual, retired)
    VALUES (?, ?, ?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE name = VALUES(name), layout = VALUES(layout), is_usual = VALUES(is_usual),
      retired = VALUES(retired), version = version + 1`,
    [l.id, l.kind, l.name, JSON.stringify(l.layout), l.usual, l.retired],
  )
/** One of a kind is the usual. */
export const setOthersUnusual = (tx: Tx, kind: PaperKind, id: string) =>
  tx.run(
    'UPDATE paper_layouts SET is_usual = FALSE, version = version + 1 WHERE kind = ? AND id <> ? AND is_usual',
    [kind, id],
  )
export const lastQuote = (tx: Tx) =>
  tx.row<{ paper: QuotePaper }>(
    'SELECT frozen AS paper FROM quotes WHERE frozen IS NOT NULL ORDER BY id DESC LIMIT 1',
  )
export const lastInvoice = (tx: Tx) =>
  tx.row<{ paper: InvoicePaper }>(
    'SELECT frozen AS paper FROM invoices WHERE work_order_id IS NOT NULL ORDER BY id DESC LIMIT 1',
  )
export const lastSigned = (tx: Tx) =>
  tx.row<{ paper: SignedPaper; hash: string }>(
    `SELECT shown AS paper, hash FROM signatures WHERE hash <> '' ORDER BY id DESC LIMIT 1`,
  )
