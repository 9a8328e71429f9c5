// A quote as it is printed.
import type { Money } from '../../core/money/formatMinor'
import { longDate, paperPdf, sumsOf, type PaperDrawing } from '../documents/paperPdf'
import { sayMoney } from '../../core/money/sayMoney'

export interface QuoteDrawing extends Pick<
  PaperDrawing,
  'number' | 'locale' | 'currency' | 'seller' | 'lines'
> {
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
  exempt: string
}
export function quotePdf(
  q: QuoteDrawing,
  readFont: (file: string) => Promise<Buffer>,
): Promise<Buffer> {
  const date = longDate(q.locale)
  return paperPdf(
    {
      ...q,
      title: `Quote ${q.number}`,
      facts: [
        { text: `Written ${date(q.issuedOn)}` },
        { text: `Price held until ${date(q.expiresOn)}`, strong: true },
        ...(q.orderNumber ? [{ text: `Your order ${q.orderNumber}` }] : []),
      ],
      buyer: { as: 'For', ...q.buyer },
      place: { as: q.title, text: [q.site, q.scope].filter(Boolean).join('\n') },
      remark: q.exempt ? `Tax exempt, certificate ${q.exempt}` : '',
      sums: sumsOf(q),
      notes: [
        q.contact ? `Contact: ${q.contact}` : '',
        q.saving && Number(q.saving.amount.amount) > 0
          ? `With ${q.saving.level}: ${sayMoney(q.saving.amount, q.locale)} less, before tax.`
          : '',
      ],
      conditions: 'This is an offer; work begins after you have agreed to it.',
    },
    readFont,
  )
}
