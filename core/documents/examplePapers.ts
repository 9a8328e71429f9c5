import { DETAIL_NAMES, type Details } from '../customers/changedDetails'
import { invoicePaper, type InvoicePaper } from '../invoices/invoicePaper'
import type { QuotePaper } from '../quotes/quoteDocument'
import { signedPaper, type SignedPaper } from '../visits/signedPaper'
import { plusDays } from '../time/zone'
import type { PayTo } from '../payments/payTo'
import { documentTotals } from './documentTotals'
import type { Terms } from './dueDate'
import { dueDate } from './dueDate'
import { letterheadOf, type Writer } from './letterhead'

/** What of a firm its example papers say. */
type Firm = Writer &
  PayTo & {
    currency: string
    locale: string
    taxMode: string
    conditions: string
    terms: Terms
    quoteDays: number
  }
const LINE = { name: 'Replace the pump', quantity: '1', unit: 'each', unitPrice: '480', off: [] }
const LABOUR = { name: 'Work on site', quantity: '2.5', unit: 'h', unitPrice: '90', off: [] }
const priced = [LINE, LABOUR]

/**
 * One paper of each kind with everything that such a paper can have: to see a layout on before the firm made any. The
 * customer and the work are made up; the letterhead, the currency and the terms are the firm's.
 * @param today local date of the firm, YYYY-MM-DD
 * @example examplePapers(firm, '2026-11-28').invoice.number // 'I-1'
 */
export function examplePapers(
  firm: Firm,
  today: string,
): { quote: QuotePaper; invoice: InvoicePaper; signed: SignedPaper } {
  const { currency, locale } = firm
  const totals = documentTotals(
    priced.map(({ quantity, unitPrice }) => ({ quantity, unitPrice, taxes: [] })),
    { mode: 'added', currency },
  )
  const lines = priced.map((line) => ({ ...line, discountMinor: 0, whole: true }))
  const details: Details = {
    ...(Object.fromEntries(Object.keys(DETAIL_NAMES).map((name) => [name, ''])) as Details),
    ...{ name: 'A customer', billingLine1: '1 Their Street', billingTown: 'Their town' },
    ...{ siteName: 'Where the work is', siteTown: 'Their town' },
  }
  const work = {
    ...{ number: 'W-1', currency, title: 'A new pump', problem: 'The old one runs dry.' },
    ...{ orderNumber: 'PO 7', printedNote: '', otherContacts: [] },
    contact: { name: 'A. Person', phone: '' },
  }
  const invoice = invoicePaper({
    ...{ number: 'I-1', issueOn: today, dueOn: dueDate(today, firm.terms), terms: firm.terms },
    ...{ company: firm, work, details, certificate: '', lines, totals },
    found: ['The old pump ran dry.'],
  })
  const signed = signedPaper({
    ...{ purpose: 'before', company: firm, work, details, certificate: '', totals },
    lines: lines.map((line, i) => ({ ...line, id: String(i) })),
    signer: { name: 'A. Person', company: '', role: '' },
    ...{ signedOn: today, signedAt: '10:15', takenBy: 'Somebody of ours' },
  })
  const { buyer, site, net, taxes, total } = invoice
  const quote: QuotePaper = {
    ...{ number: 'Q-1', locale, currency, seller: letterheadOf(firm), buyer, site },
    ...{ issuedOn: today, expiresOn: plusDays(today, firm.quoteDays) },
    ...{ title: work.title, scope: work.problem, orderNumber: work.orderNumber },
    ...{ contact: work.contact.name, lines: invoice.lines, net, taxes, total },
    ...{ saving: null, exempt: '' },
  }
  return { quote, invoice, signed }
}
