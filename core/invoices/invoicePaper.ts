import type { Details } from '../customers/changedDetails'
import { addressLines, letterheadOf, type Letterhead, type Writer } from '../documents/letterhead'
import { termsInWords, type Terms } from '../documents/dueDate'
import type { PaperLine } from '../documents/paperDocument'
import type { PaperLayout } from '../documents/paperLayout'
import { saysOn, type Says } from '../documents/paperWords'
import { payToWords, type PayTo } from '../payments/payTo'
import type { DiscountPart } from '../documents/discountReasons'
import type { DocumentTotals } from '../documents/documentTotals'
import { Decimal } from '../money/decimal'
import { toMoney, type Money } from '../money/formatMinor'
import { sayContact } from '../visits/workContacts'

/** An invoice as it was sent: kept as it is for ever. */
export interface InvoicePaper {
  number: string
  /** local dates of the company, YYYY-MM-DD */
  issueOn: string
  dueOn: string
  terms: string
  /** what it is about; not of papers from before they said it */
  title?: string | undefined
  currency: string
  locale: string
  taxMode: string
  seller: Letterhead
  buyer: { name: string; address: string[] }
  site: string
  orderNumber: string
  workOrder: string
  exemptCertificate: string
  note?: string | undefined
  /** what was found on site, visit by visit */
  found?: string[] | undefined
  contact?: string | undefined
  payTo: string
  conditions: string
  lines: PaperLine[]
  net: Money
  taxes: { name: string; rate: string; base: Money; tax: Money }[]
  tax: Money
  total: Money
  /** of an invoice from the books before: what was paid of it there */
  paidBefore?: Money | undefined
  payable: Money
  /** of papers that were made before there were any, none */
  layout?: PaperLayout | undefined
}
/** A line that is billed: the whole of it, or what is left of one that was billed in part before. */
export interface BilledLine {
  name: string
  quantity: string
  unit: string
  discountMinor: number
  off: readonly DiscountPart[]
  /** as it is billed: of a balance, the balance */
  unitPrice: string
  whole: boolean
}
type Contact = Parameters<typeof sayContact>[0]
interface Facts {
  number: string
  issueOn: string
  dueOn: string
  terms: Terms
  layout?: PaperLayout | undefined
  company: Writer & PayTo & { locale: string; taxMode: string; conditions: string }
  work: {
    number: string
    title: string
    currency: string
    orderNumber: string
    printedNote: string
    contact: Contact
    otherContacts: readonly Contact[]
  }
  /** the customer's and the site's details, as the work order copied them */
  details: Details
  /** the certificate that frees the buyer from tax, where one does */
  certificate: string
  found: readonly string[]
  lines: readonly BilledLine[]
  totals: DocumentTotals
}

/**
 * The paper of an invoice, from what is billed and its totals. Nothing is rounded here: sums are the totals',
 * and each line's net is the one that they were made from.
 * @example invoicePaper({ …facts, lines: [{ name: 'Pump', whole: false, … }] }).lines[0].name // 'Pump (balance)'
 */
export function invoicePaper(facts: Facts): InvoicePaper {
  const { company, work, details, totals, layout } = facts
  const says = saysOn('invoice', layout?.words)
  const money = (minor: number) => toMoney(minor, work.currency)
  return {
    number: facts.number,
    issueOn: facts.issueOn,
    dueOn: facts.dueOn,
    terms: termsInWords(facts.terms, says),
    title: work.title,
    currency: work.currency,
    locale: company.locale,
    taxMode: company.taxMode,
    seller: letterheadOf(company),
    ...partiesOf(details),
    note: work.printedNote,
    found: [...facts.found],
    contact: [work.contact, ...work.otherContacts].map(sayContact).filter(Boolean).join('; '),
    orderNumber: work.orderNumber,
    workOrder: work.number,
    exemptCertificate: facts.certificate,
    payTo: payToWords(company, says),
    conditions: company.conditions,
    lines: facts.lines.map((line, i) => ({
      ...lineOf(line, says),
      discount: money(line.whole ? line.discountMinor : 0),
      off: line.whole ? line.off.map(({ why, minor }) => ({ why, amount: money(minor) })) : [],
      net: money(totals.lineNets[i]!),
    })),
    net: money(totals.netMinor),
    taxes: totals.taxes.map((t) => ({
      name: t.name,
      rate: t.rate,
      base: money(t.baseMinor),
      tax: money(t.taxMinor),
    })),
    tax: money(totals.taxMinor),
    total: money(totals.totalMinor),
    payable: money(totals.payableMinor),
    ...(layout && { layout }),
  }
}
const partiesOf = (details: Details): Pick<InvoicePaper, 'buyer' | 'site'> => ({
  buyer: {
    name: details.name,
    address: addressLines({
      line1: details.billingLine1,
      town: details.billingTown,
      postcode: details.billingPostcode,
    }),
  },
  site: [details.siteName, details.siteLine1, details.siteTown].filter(Boolean).join(', '),
})
/** A balance is one of itself: its quantity was billed before. */
const lineOf = ({ name, quantity, unit, unitPrice, whole }: BilledLine, says: Says<'invoice'>) => ({
  name: whole ? name : says('balance', { name }),
  quantity: whole ? new Decimal(quantity).toString() : '1',
  unit,
  unitPrice,
})
