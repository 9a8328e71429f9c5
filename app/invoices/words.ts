// How invoices are spoken of. A state or an act that is missing here does not compile.
import type { InvoiceAct, InvoiceState } from '~~/core/invoices/invoiceLifecycle'

export const INVOICE_STATES: Readonly<Record<InvoiceState, string>> = {
  not_sent: 'not sent',
  sent: 'sent',
  part_paid: 'part paid',
  paid: 'paid',
  void: 'void',
  written_off: 'written off',
}
const TONES: Readonly<Record<InvoiceState, '' | 'good' | 'late' | 'soon'>> = {
  not_sent: 'soon',
  sent: '',
  part_paid: '',
  paid: 'good',
  void: '',
  written_off: '',
}

/** An invoice in a word: one that is late by how late it is, any other by its state. */
export function invoiceTag(invoice: { state: InvoiceState; late: number }): {
  word: string
  tone: '' | 'good' | 'late' | 'soon'
} {
  const { state, late } = invoice
  if (late) return { word: `overdue by ${late === 1 ? 'a day' : `${late} days`}`, tone: 'late' }
  return { word: INVOICE_STATES[state], tone: TONES[state] }
}

/** What the button of an act says; the link has its own place. */
export function actWords(act: InvoiceAct, invoice: { sent: boolean }): string {
  const words: Readonly<Record<InvoiceAct, string>> = {
    pay: 'Take payment…',
    send: invoice.sent ? 'Send again…' : 'Send…',
    link: '',
  }
  return words[act]
}
