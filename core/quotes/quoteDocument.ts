import type { Letterhead } from '../documents/letterhead'
import type { LayoutFacts, PaperLayout } from '../documents/paperLayout'
import { saysOn } from '../documents/paperWords'
import {
  isNothing,
  laidOut,
  linesInWords,
  sumsInWords,
  type PaperDocument,
  type PaperLine,
} from '../documents/paperDocument'
import type { Money } from '../money/formatMinor'
import { sayMoney } from '../money/sayMoney'
import { fillFields } from '../text/fillFields'
import { sayDay } from '../time/sayDay'

/** A quote as it is sent: without costs, and kept as it is from then on. */
export interface QuotePaper {
  number: string
  locale: string
  currency: string
  seller: Letterhead
  lines: PaperLine[]
  /** local dates of the company, YYYY-MM-DD */
  issuedOn: string
  expiresOn: string
  title: string
  scope: string
  orderNumber: string
  buyer: { name: string; address: string[] }
  site: string
  contact: string
  net: Money
  taxes: { name: string; rate: string; tax: Money }[]
  total: Money
  /** what a care agreement would save, for who has none */
  saving: { level: string; amount: Money } | null
  /** the certificate that frees from tax, where one does */
  exempt: string
  /** of papers that were made before there were any, none */
  layout?: PaperLayout | undefined
}
/** What stands at the foot of a quote where nothing else is said. */
const OFFER = 'This is an offer; work begins after you have agreed to it.'

/**
 * A quote as it is read.
 * @example quoteDocument(paper).facts[1] // { text: 'Price held until December 24, 2026', strong: true }
 */
export function quoteDocument(paper: QuotePaper): PaperDocument {
  const { locale, saving } = paper
  const date = (day: string) => sayDay(day, locale, 'written')
  const says = saysOn('quote', paper.layout?.words)
  const facts: LayoutFacts<'quote'> = {
    ...{ name: paper.buyer.name, site: paper.site, title: paper.title, number: paper.number },
    ...{ date: date(paper.issuedOn), until: date(paper.expiresOn), order: paper.orderNumber },
    ...{ total: sayMoney(paper.total, locale), company: paper.seller.name },
  }
  return {
    ...laidOut(paper, says, facts),
    title: says('title', facts),
    facts: [
      { text: says('written', facts) },
      { text: says('held', { date: facts.until }), strong: true },
      ...(paper.orderNumber ? [{ text: says('order', facts) }] : []),
    ],
    buyer: { as: says('buyer'), ...paper.buyer },
    place: { as: paper.title, text: [paper.site, paper.scope].filter(Boolean).join('\n') },
    lines: linesInWords(paper, says),
    remark: paper.exempt ? says('exempt', { certificate: paper.exempt }) : '',
    sums: sumsInWords(paper, locale, says),
    notes: [
      paper.contact ? says('contact', { contact: paper.contact }) : '',
      saving && !isNothing(saving.amount)
        ? says('saving', { level: saving.level, amount: sayMoney(saving.amount, locale) })
        : '',
    ].filter(Boolean),
    conditions: fillFields(paper.layout?.conditions ?? '', facts) || OFFER,
  }
}
