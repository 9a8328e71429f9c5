// SQL of where invoices wait: as what is owed, and as papers of which the customer has to hear.
import {
  whereInvoiceStands,
  wherePaperStands,
  type InvoiceFacts,
  type PaperFacts,
} from '../../core/waiting/whereItStands'
import { waits, type Waiting, type Waits } from '../subject'

/** Every mail with an invoice failed, whether somebody let it be or not; a receipt is none of it. */
const BOUNCED = `EXISTS (SELECT 1 FROM messages m WHERE m.invoice_id = i.id AND m.kind = 'invoice' AND
    m.state IN ('failed', 'let_be')) AND NOT EXISTS (SELECT 1 FROM messages o WHERE o.invoice_id = i.id AND o.kind
    = 'invoice' AND o.state NOT IN ('failed', 'let_be'))`
/** Something is asked for on it, and it was never sent, or no mail of it arrived. */
export const TO_SEND = `i.open_minor > 0 AND (NOT i.sent OR (${BOUNCED}))`
const FACTS = `i.number AS label, c.name AS whose, i.open_minor AS sum, i.state, i.open_minor AS
    openMinor, i.due_on, TRUE AS carried`
const invoice = {
  from: 'invoices i',
  joins: 'JOIN customers c ON c.id = i.customer_id',
  id: 'i.id',
  sum: 'i.open_minor',
  to: ({ id }: Waiting) => `/invoices/${id}`,
}
export const WAITS: readonly Waits[] = [
  waits<Waiting & InvoiceFacts>({
    ...invoice,
    kind: 'invoice',
    columns: FACTS,
    places: () => ({ unpaid: ['i.open_minor > 0'] }),
    stands: whereInvoiceStands,
  }),
  waits<Waiting & PaperFacts>({
    ...invoice,
    kind: 'paper',
    columns: `${FACTS}, i.sent, IF(i.open_minor > 0, ${BOUNCED}, FALSE) AS bounced`,
    booleans: ['sent', 'bounced'],
    places: () => ({ to_send: [TO_SEND] }),
    stands: wherePaperStands,
  }),
]
