/**
 * The state of an invoice as people say it: a credited or cancelled one by that, an open one by its money, then by whether it was sent.
 * @param open what is still to be paid, and `paid` what was, in minor units
 * @example invoiceState({ state: 'open', open: 4000, paid: 1000, sent: true }) // 'part paid'
 * @example invoiceState({ state: 'written_off', open: 0, paid: 0, sent: true }) // 'written off'
 * Common practice.
 */
export function invoiceState(invoice: {
  state: string
  open: number
  paid: number
  sent: boolean
}): string {
  if (invoice.state !== 'open') return invoice.state.replace('_', ' ')
  if (invoice.open === 0) return 'paid'
  if (invoice.paid > 0) return 'part paid'
  return invoice.sent ? 'sent' : 'not sent'
}
