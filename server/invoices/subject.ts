// What invoices tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { encloseInvoice, invoiceLink } from './enclosure'
import { invoicePapers } from './papers'
import { ERASURES, EXPORTS, FINDING } from './subject.queries'
import { WAITS } from './waiting.queries'

export const invoices: Subject = {
  name: 'invoices',
  moves: {
    invoices: { one: 'invoice', several: 'invoices' },
  },
  erases: ERASURES,
  finds: [FINDING],
  exports: EXPORTS,
  encloses: { invoice: encloseInvoice },
  linkFor: invoiceLink,
  papers: invoicePapers,
  waits: WAITS,
}
