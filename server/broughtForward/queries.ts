// SQL of what is taken over from the books before: who is meant, which numbers are known already.
import { placeholders, type Tx, type Value } from '../db/pool'

export interface PayerRow {
  id: string
  name: string
  phone: string
  phone2: string
  email: string
  email2: string
  line1: string
  town: string
  postcode: string
}
/** Customers who have one of these names, telephones or mail addresses. */
export async function payersLike(
  tx: Tx,
  of: { names: string[]; phones: string[]; mails: string[] },
): Promise<PayerRow[]> {
  const either: string[] = []
  const values: Value[] = []
  for (const [columns, wanted] of [
    [['name'], of.names],
    [['phone', 'phone2'], of.phones],
    [['email', 'email2'], of.mails],
  ] as const)
    for (const column of wanted.length ? columns : []) {
      either.push(`${column} IN (${placeholders(wanted)})`)
      values.push(...wanted)
    }
  return tx.rows<PayerRow>(
    `SELECT id, name, phone, phone2, email, email2, line1, town, postcode
    FROM customers
    WHERE merged_into IS NULL AND erased_at IS NULL AND (${either.join(' OR ')})
    ORDER BY id`,
    values,
  )
}
/** Of these numbers, those that an invoice or a receipt has. */
export const numbersThere = async (tx: Tx, numbers: string[]) =>
  (
    await tx.rows<{ number: string }>(
      `SELECT number FROM invoices WHERE number IN (${placeholders(numbers)})
      UNION SELECT number FROM payments WHERE number IN (${placeholders(numbers)})`,
      [...numbers, ...numbers],
    )
  ).map(({ number }) => number)
/** What was brought and is there, as it was brought: invoices, credits. */
export const broughtSums = async (tx: Tx) =>
  (await tx.row<{ invoices: number; open: number; credits: number; credit: number }>(
    `SELECT i.n AS invoices, i.sum AS open, p.n AS credits, p.sum AS credit
    FROM (SELECT COUNT(*) AS n, CAST(COALESCE(SUM(payable_minor), 0) AS SIGNED) AS sum FROM invoices
        WHERE import_id IS NOT NULL) i,
      (SELECT COUNT(*) AS n, CAST(COALESCE(SUM(amount_minor), 0) AS SIGNED) AS sum FROM payments
        WHERE import_id IS NOT NULL AND bounced_on IS NULL) p`,
  ))!
/** How many invoices and credits an import brought, of those that are there. */
export const broughtBy = async (tx: Tx, importId: string) =>
  (await tx.row<{ n: number }>(
    `SELECT (SELECT COUNT(*) FROM invoices WHERE import_id = ?) + (SELECT COUNT(*) FROM payments
      WHERE import_id = ?) AS n`,
    [importId, importId],
  ))!.n
