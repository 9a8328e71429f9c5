// An invoice as it is printed: its frozen paper, with what has come in since.
import type { Money } from '../../core/money/formatMinor'
import { longDate, paperPdf, sumsOf } from '../documents/paperPdf'
import type { Paper } from './queries'

export function invoicePdf(
  paper: Paper,
  paid: Money,
  open: Money,
  readFont: (file: string) => Promise<Buffer>,
): Promise<Buffer> {
  const date = longDate(paper.locale)
  return paperPdf(
    {
      ...paper,
      title: `Invoice ${paper.number}`,
      facts: [
        { text: `Issued ${date(paper.issueOn)}` },
        { text: `Due ${date(paper.dueOn)} (${paper.terms})`, strong: true },
        ...(paper.orderNumber ? [{ text: `Your order ${paper.orderNumber}` }] : []),
        { text: `Our work order ${paper.workOrder}` },
      ],
      buyer: { as: 'Billed to', ...paper.buyer },
      place: { as: 'Work done at', text: paper.site },
      remark: paper.exemptCertificate ? `Tax exempt, certificate ${paper.exemptCertificate}` : '',
      sums: [
        ...sumsOf(paper),
        ...(paper.payable.amount === paper.total.amount
          ? []
          : [{ label: 'Payable', amount: paper.payable, strong: true }]),
        ...(Number(paid.amount) === 0
          ? []
          : [
              { label: 'Paid', amount: paid },
              { label: 'Still open', amount: open, strong: true },
            ]),
      ],
      notes: [paper.contact ? `Contact: ${paper.contact}` : '', paper.note ?? '', paper.payTo],
    },
    readFont,
  )
}
