// SQL of credits that the firm's books before had.
import { placeholders, sqlInstant, type Tx } from '../db/pool'

export interface BroughtCredit {
  id: string
  number: string
  customerId: string
  amountMinor: number
  issuedOn: string
}
/** Each stands in the customer's favour from the day on which it is counted here. */
export const insertCredits = (
  tx: Tx,
  of: { importId: string; on: string; by: string; now: number },
  credits: readonly BroughtCredit[],
) =>
  tx.many(
    `INSERT INTO payments (id, number, import_id, customer_id, method, reference, amount_minor,
      received_on, taken_by, created_at)
    VALUES ?`,
    credits.map((c) => [
      ...[c.id, c.number, of.importId, c.customerId, 'credit', `of ${c.issuedOn}`],
      ...[c.amountMinor, of.on, of.by, sqlInstant(of.now)],
    ]),
  )
/** Takes out those of an import that paid nothing and were not taken back. */
export async function removeCredits(tx: Tx, importId: string) {
  const gone = await tx.rows<{ id: string; number: string; customerId: string; amount: number }>(
    `SELECT p.id, p.number, p.customer_id, p.amount_minor AS amount
    FROM payments p
    WHERE p.import_id = ? AND p.bounced_on IS NULL AND NOT EXISTS
      (SELECT 1 FROM allocations a WHERE a.payment_id = p.id) FOR UPDATE`,
    [importId],
  )
  const ids = gone.map(({ id }) => id)
  if (ids.length) await tx.run(`DELETE FROM payments WHERE id IN (${placeholders(ids)})`, ids)
  return gone
}
