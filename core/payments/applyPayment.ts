import { InvalidValue } from '../errors/InvalidValue'
export interface OpenInvoice {
  id: string
  dueOn: string
  number: string
  balanceMinor: number
}

/**
 * A payment applied to open invoices: oldest due first (then by number), never beyond an invoice's balance; what is left
 * over is an unapplied credit.
 * @param chosen when given, only these invoices take part, each once, in the order given
 * @throws InvalidValue for an amount that is not above zero
 * @example applyPayment(52005, [{ id: 'a', dueOn: '2026-11-01', number: 'I-1', balanceMinor: 10000 }]).leftMinor // 42005
 * Source: common practice of the trade.
 */
export function applyPayment(
  amountMinor: number,
  open: readonly OpenInvoice[],
  chosen?: readonly string[],
): { applied: { id: string; amountMinor: number }[]; leftMinor: number } {
  if (!Number.isSafeInteger(amountMinor) || amountMinor <= 0)
    throw new InvalidValue('A payment is more than zero.')
  const byDue = [...open].sort((a, b) => (a.dueOn + a.number < b.dueOn + b.number ? -1 : 1))
  const order = chosen
    ? [...new Set(chosen)].flatMap((id) => byDue.filter((i) => i.id === id))
    : byDue
  let left = amountMinor
  const applied = []
  for (const invoice of order) {
    const part = Math.min(left, Math.max(0, invoice.balanceMinor))
    if (part > 0) applied.push({ id: invoice.id, amountMinor: part })
    left -= part
  }
  return { applied, leftMinor: left }
}
