import { shareAmount } from '../money/shareAmount'
import { paidNet } from './paidNet'

/**
 * What of an invoice's lines is paid, net of tax in minor units: the paid part of the net, shared over the lines.
 * A fully paid invoice pays every line to the unit; nothing paid pays none.
 * @example paidByLine({ payableMinor: 10700, paidMinor: 5350, nets: [6000, 4000] }) // [3000, 2000]
 */
export function paidByLine(invoice: {
  payableMinor: number
  paidMinor: number
  nets: readonly number[]
}): number[] {
  if (invoice.payableMinor <= 0) return invoice.nets.map(() => 0)
  const paid = paidNet({ ...invoice, netMinor: invoice.nets.reduce((sum, n) => sum + n, 0) })
  return shareAmount(
    paid,
    invoice.nets.map((n) => Math.max(0, n)),
  )
}
