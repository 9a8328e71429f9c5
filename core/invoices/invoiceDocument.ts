import type { LayoutFacts } from '../documents/paperLayout'
import { saysOn, type Says } from '../documents/paperWords'
import {
  isNothing,
  laidOut,
  linesInWords,
  sumsInWords,
  type PaperDocument,
} from '../documents/paperDocument'
import type { Money } from '../money/formatMinor'
import { sayMoney } from '../money/sayMoney'
import { fillFields } from '../text/fillFields'
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
  const says = saysOn('invoice', paper.layout?.words)
  const facts = factsOf(paper)
  return {
    ...laidOut(paper, says, facts),
    title: says('title', facts),
    facts: [
      { text: says('issued', facts) },
      { text: says('due', { date: facts.due, terms: paper.terms }), strong: true },
      ...(paper.orderNumber ? [{ text: says('order', facts) }] : []),
      ...(paper.workOrder ? [{ text: says('work', facts) }] : []),
    ],
    buyer: { as: says('buyer'), ...paper.buyer },
    place: { as: paper.site && says('place'), text: paper.site },
    lines: linesInWords(paper, says),
    remark: paper.exemptCertificate ? says('exempt', { certificate: paper.exemptCertificate }) : '',
    sums: sumsOf(paper, received, says),
    notes: [
      ...(paper.found ?? []).map((found) => says('found', { found })),
      paper.contact ? says('contact', { contact: paper.contact }) : '',
      ...[paper.note ?? '', paper.payTo],
    ].filter(Boolean),
    conditions: fillFields(paper.layout?.conditions ?? '', facts) || paper.conditions,
  }
}
/** What the free texts of an invoice may name. */
function factsOf(paper: InvoicePaper): LayoutFacts<'invoice'> {
  const date = (day: string) => sayDay(day, paper.locale, 'written')
  return {
    ...{ name: paper.buyer.name, site: paper.site, title: paper.title ?? '' },
    ...{ number: paper.number, date: date(paper.issueOn), due: date(paper.dueOn) },
    ...{ order: paper.orderNumber, work: paper.workOrder, company: paper.seller.name },
    total: sayMoney(paper.total, paper.locale),
  }
}
/** Its sums, what is payable where that is less, and what has come in. */
function sumsOf(
  paper: InvoicePaper,
  received: { paid: Money; open: Money },
  says: Says<'invoice'>,
): PaperDocument['sums'] {
  const { locale, paidBefore, payable } = paper
  const less = payable.amount !== paper.total.amount
  return [
    ...(paidBefore ? broughtSums(paper, paidBefore, says) : sumsInWords(paper, locale, says)),
    ...(less ? [{ label: says('payable'), amount: sayMoney(payable, locale), strong: true }] : []),
    ...(isNothing(received.paid) ? [] : cameIn(received, locale, says)),
  ]
}
/** With neither taxes nor a net of its own, the sum is said once. */
const broughtSums = (
  paper: InvoicePaper,
  paidBefore: Money,
  says: Says<'invoice'>,
): PaperDocument['sums'] => [
  ...sumsInWords(paper, paper.locale, says).slice(1),
  ...(isNothing(paidBefore)
    ? []
    : [{ label: says('paidBefore'), amount: sayMoney(paidBefore, paper.locale) }]),
]
const cameIn = (
  { paid, open }: { paid: Money; open: Money },
  locale: string,
  says: Says<'invoice'>,
) => [
  { label: says('paid'), amount: sayMoney(paid, locale) },
  { label: says('open'), amount: sayMoney(open, locale), strong: true },
]
