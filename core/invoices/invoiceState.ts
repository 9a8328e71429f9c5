import type { InvoiceState, StoredInvoiceState } from './invoiceLifecycle'

/**
 * The state of an invoice as people speak of it: one that is void or written off by that, an open one by its
 * money, then by whether it was sent.
 * @param invoice `open` is what is still to be paid, `paid` what was, in minor units
 * @example invoiceState({ state: 'open', open: 4000, paid: 1000, sent: true }) // 'part_paid'
 * @example invoiceState({ state: 'written_off', open: 0, paid: 0, sent: true }) // 'written_off'
 * Source: common practice.
 */
export function invoiceState(invoice: {
  state: StoredInvoiceState
  open: number
  paid: number
  sent: boolean
}): InvoiceState {
  if (invoice.state !== 'open') return invoice.state
  if (invoice.open === 0) return 'paid'
  if (invoice.paid > 0) return 'part_paid'
  return invoice.sent ? 'sent' : 'not_sent'
}
