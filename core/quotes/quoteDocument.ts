import type { Letterhead } from '../documents/letterhead'
import {
  isNothing,
  linesInWords,
  sumsInWords,
  type PaperDocument,
  type PaperLine,
} from '../documents/paperDocument'
import type { Money } from '../money/formatMinor'
import { sayMoney } from '../money/sayMoney'
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
}

/**
 * A quote as it is read.
 * @example quoteDocument(paper).facts[1] // { text: 'Price held until December 24, 2026', strong: true }
 */
export function quoteDocument(paper: QuotePaper): PaperDocument {
  const { locale, saving } = paper
  const date = (day: string) => sayDay(day, locale, 'written')
  return {
    title: `Quote ${paper.number}`,
    number: paper.number,
    locale,
    seller: paper.seller,
    facts: [
      { text: `Written ${date(paper.issuedOn)}` },
      { text: `Price held until ${date(paper.expiresOn)}`, strong: true },
      ...(paper.orderNumber ? [{ text: `Your order ${paper.orderNumber}` }] : []),
    ],
    buyer: { as: 'For', ...paper.buyer },
    place: { as: paper.title, text: [paper.site, paper.scope].filter(Boolean).join('\n') },
    lines: linesInWords(paper.lines, locale),
    remark: paper.exempt ? `Tax exempt, certificate ${paper.exempt}` : '',
    sums: sumsInWords(paper, locale),
    notes: [
      paper.contact ? `Contact: ${paper.contact}` : '',
      saving && !isNothing(saving.amount)
        ? `With ${saving.level}: ${sayMoney(saving.amount, locale)} less, before tax.`
        : '',
    ].filter(Boolean),
    conditions: 'This is an offer; work begins after you have agreed to it.',
  }
}
