// SQL of invoices that the firm's books before had: only what is still open of them is counted here.
import type { InvoicePaper } from '../../core/invoices/invoicePaper'
import { placeholders, sqlInstant, type Tx } from '../db/pool'

interface Brought {
  id: string
  customerId: string
  currency: string
  totalMinor: number
  openMinor: number
  paper: InvoicePaper
  tokenHash: string
}
/** They were sent when they were made; no income and no tax is counted again. */
export const insertBrought = (
  tx: Tx,
  of: { importId: string; on: string; linkUntil: number; now: number },
  invoices: readonly Brought[],
) =>
  tx.many(
    `INSERT INTO invoices (id, number, import_id, brought_on, customer_id, issue_on, due_on,
      currency, net_minor, tax_minor, total_minor, payable_minor, frozen, sent,
      token_hash, token_expires_at, created_at)
    VALUES ?`,
    invoices.map(({ paper, ...i }) => [
      ...[i.id, paper.number, of.importId, of.on, i.customerId, paper.issueOn, paper.dueOn],
      ...[i.currency, 0, 0, i.totalMinor, i.openMinor, JSON.stringify(paper), true],
      ...[i.tokenHash, sqlInstant(of.linkUntil), sqlInstant(of.now)],
    ]),
  )
/** Takes out those of an import that nobody touched: not paid, not written about, not shown by a link. */
export async function removeBrought(tx: Tx, importId: string) {
  const free = ['allocations', 'card_charges', 'messages', 'invoice_lines']
    .map((table) => `NOT EXISTS (SELECT 1 FROM ${table} w WHERE w.invoice_id = i.id)`)
    .join(' AND ')
  const gone = await tx.rows<{ id: string; number: string; customerId: string; open: number }>(
    `SELECT i.id, i.number, i.customer_id, i.open_minor AS open
    FROM invoices i
    WHERE i.import_id = ? AND i.version = 1 AND i.state = 'open' AND ${free} FOR UPDATE`,
    [importId],
  )
  const ids = gone.map(({ id }) => id)
  if (ids.length) await tx.run(`DELETE FROM invoices WHERE id IN (${placeholders(ids)})`, ids)
  return gone
}
