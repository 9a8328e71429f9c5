import {
  isNothing,
  linesInWords,
  sumsInWords,
  type PaperDocument,
} from '../documents/paperDocument'
import type { Money } from '../money/formatMinor'
import { sayMoney } from '../money/sayMoney'
import { sayDay } from '../time/sayDay'
import type { InvoicePaper } from './invoicePaper'

/**
 * An invoice as it is read: its paper as it was sent, with what has come in since.
 * @param paper frozen when it was made; an older one may lack its note, its contact and what was found
 * @example invoiceDocument(paper, { paid, open }).facts[1] // { text: 'Due December 24, 2026 (30 days)', strong: true }
 */
export function invoiceDocument(
  paper: InvoicePaper,
  received: { paid: Money; open: Money },
): PaperDocument {
  const { locale, paidBefore } = paper
  const date = (day: string) => sayDay(day, locale, 'written')
  const payable = paper.payable.amount !== paper.total.amount
  return {
    title: `Invoice ${paper.number}`,
    number: paper.number,
    locale,
    seller: paper.seller,
    facts: [
      { text: `Issued ${date(paper.issueOn)}` },
      { text: `Due ${date(paper.dueOn)} (${paper.terms})`, strong: true },
      ...(paper.orderNumber ? [{ text: `Your order ${paper.orderNumber}` }] : []),
      ...(paper.workOrder ? [{ text: `Our work order ${paper.workOrder}` }] : []),
    ],
    buyer: { as: 'Billed to', ...paper.buyer },
    place: { as: paper.site && 'Work done at', text: paper.site },
    lines: linesInWords(paper.lines, locale),
    remark: paper.exemptCertificate ? `Tax exempt, certificate ${paper.exemptCertificate}` : '',
    sums: [
      ...(paidBefore ? broughtSums(paper, paidBefore) : sumsInWords(paper, locale)),
      ...(payable
        ? [{ label: 'Payable', amount: sayMoney(paper.payable, locale), strong: true }]
        : []),
      ...(isNothing(received.paid) ? [] : cameIn(received, locale)),
    ],
    notes: [
      ...(paper.found ?? []).map((found) => `Found on site: ${found}`),
      paper.contact ? `Contact: ${paper.contact}` : '',
      ...[paper.note ?? '', paper.payTo],
    ].filter(Boolean),
    conditions: paper.conditions,
  }
}
/** With neither taxes nor a net of its own, the sum is said once. */
const broughtSums = (paper: InvoicePaper, paidBefore: Money): PaperDocument['sums'] => [
  ...sumsInWords(paper, paper.locale).slice(1),
  ...(isNothing(paidBefore)
    ? []
    : [{ label: 'Paid before', amount: sayMoney(paidBefore, paper.locale) }]),
]
const cameIn = ({ paid, open }: { paid: Money; open: Money }, locale: string) => [
  { label: 'Paid', amount: sayMoney(paid, locale) },
  { label: 'Still open', amount: sayMoney(open, locale), strong: true },
]
