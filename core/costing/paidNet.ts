/**
 * How much of an invoice's net is paid, in minor units: paid × net ÷ payable, rounded down, so that a part payment
 * never reads as more than it was. An invoice for nothing has nothing paid.
 * @example paidNet({ payableMinor: 10700, paidMinor: 5350, netMinor: 10000 }) // 5000
 */
export function paidNet(invoice: {
  payableMinor: number
  paidMinor: number
  netMinor: number
}): number {
  if (invoice.payableMinor <= 0) return 0
  return Number(
    (BigInt(invoice.paidMinor) * BigInt(invoice.netMinor)) / BigInt(invoice.payableMinor),
  )
}
