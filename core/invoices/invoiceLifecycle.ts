import type { Permission } from '../access/permissions'
import type { ActOf, Lifecycle, StateOf } from '../documents/lifecycle'

const states = ['not_sent', 'sent', 'part_paid', 'paid', 'void', 'written_off'] as const
const owed = ['not_sent', 'sent', 'part_paid'] as const

/**
 * The life of an invoice. What is stored is that it is open, void or written off, whether it was sent, and
 * what came in; the state that people speak of follows from these (see invoiceState), so that acts lead to none.
 */
export const invoiceLifecycle = {
  states,
  acts: {
    pay: { from: owed },
    send: { from: [...owed, 'paid'] },
    link: { from: states },
  },
} as const satisfies Lifecycle<(typeof states)[number]>

export type InvoiceState = StateOf<typeof invoiceLifecycle>
export type InvoiceAct = ActOf<typeof invoiceLifecycle>
/** What is stored; the rest follows from the money and the mail. */
export type StoredInvoiceState = 'open' | 'void' | 'written_off'

/** Which permission each act asks for. */
export const invoicePermissions: Readonly<Record<InvoiceAct, Permission>> = {
  pay: 'payments.take',
  send: 'invoices.make',
  link: 'invoices.link',
}
