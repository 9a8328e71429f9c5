// A paper of the firm as PDF: letterhead, parties, lines, sums. Text outside the Latin subset takes the extended cut of the same typeface, run by run.
import pdfmake from 'pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { Money } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import { sayMoney } from '../../core/money/sayMoney'

const FILES = {
  latin: 'atkinson-hyperlegible-next-latin',
  ext: 'atkinson-hyperlegible-next-latin-ext',
  mono: 'atkinson-hyperlegible-mono-latin',
}
type Make = {
  virtualfs: { writeFileSync(name: string, data: Buffer): void }
  setFonts(fonts: object): void
  setLocalAccessPolicy?(f: (p: string) => boolean): void
  setUrlAccessPolicy?(f: (u: string) => boolean): void
  createPdf(d: TDocumentDefinitions): { getBuffer(): Promise<Buffer> }
}
let ready = false
async function prepare(readFont: (file: string) => Promise<Buffer>): Promise<Make> {
  const make = pdfmake as unknown as Make
  if (!ready) {
    for (const base of Object.values(FILES))
      for (const weight of [400, 700])
        make.virtualfs.writeFileSync(
          `${base}-${weight}.woff`,
          await readFont(`${base}-${weight}-normal.woff`),
        )
    const font = (base: string) => ({
      normal: `${base}-400.woff`,
      bold: `${base}-700.woff`,
      italics: `${base}-400.woff`,
      bolditalics: `${base}-700.woff`,
    })
    make.setFonts({ latin: font(FILES.latin), ext: font(FILES.ext), mono: font(FILES.mono) })
    make.setUrlAccessPolicy?.(() => false)
    make.setLocalAccessPolicy?.(() => false)
    ready = true
  }
  return make
}
/** Letters that the Latin cut of the typeface has. */
const LATIN = '\\u0000-\\u00ff\\u2013\\u2014\\u2018-\\u201e\\u2026\\u20ac\\u2032'
const RUNS = new RegExp(`[${LATIN}]+|[^${LATIN}]+`, 'g')
const IS_LATIN = new RegExp(`^[${LATIN}]`)
/** Text in runs, each in the cut of the typeface that has its letters. */
export const runs = (text: string) =>
  (text.match(RUNS) ?? ['']).map((t) => ({ text: t, font: IS_LATIN.test(t) ? 'latin' : 'ext' }))

export interface PaperDrawing {
  /** what it is and its number: "Invoice I-2207" */
  title: string
  number: string
  locale: string
  currency: string
  seller: { name: string; address: string[]; phone: string; email: string; taxNumber: string }
  /** beside the letterhead, the strong one in bold */
  facts: { text: string; strong?: boolean }[]
  buyer: { as: string; name: string; address: string[] }
  place: { as: string; text: string }
  lines: {
    name: string
    quantity: string
    unit: string
    unitPrice: string
    discount: Money
    net: Money
  }[]
  remark: string
  sums: { label: string; amount: Money; strong?: boolean }[]
  notes: string[]
  conditions: string
}
/** A date as the company writes it. */
export const longDate = (locale: string) => (d: string) =>
  new Intl.DateTimeFormat(locale, { dateStyle: 'long', timeZone: 'UTC' }).format(
    new Date(`${d}T00:00Z`),
  )

export async function paperPdf(
  paper: PaperDrawing,
  readFont: (file: string) => Promise<Buffer>,
): Promise<Buffer> {
  const m = (v: Money): Content => ({
    text: sayMoney(v, paper.locale),
    font: 'mono',
    alignment: 'right',
    noWrap: true,
  })
  const rule = { hLineColor: () => '#b9c5bf', vLineWidth: () => 0 }
  const sum = (s: PaperDrawing['sums'][number]): Content[] => [
    { text: runs(s.label), bold: s.strong, alignment: 'right' },
    { ...(m(s.amount) as object), bold: s.strong } as Content,
  ]
  const pale = (text: string) => ({ text: runs(text), color: '#4a5a54' })
  const content: Content[] = [
    {
      columns: [
        {
          width: '*',
          stack: [
            { text: runs(paper.seller.name), fontSize: 16, bold: true },
            ...paper.seller.address.map(pale),
            pale([paper.seller.phone, paper.seller.email].filter(Boolean).join(' · ')),
            ...(paper.seller.taxNumber ? [pale(`Tax number ${paper.seller.taxNumber}`)] : []),
          ],
        },
        {
          width: 'auto',
          alignment: 'right',
          stack: [
            { text: paper.title, fontSize: 16, bold: true },
            ...paper.facts.map((f) => ({ text: runs(f.text), bold: f.strong })),
          ],
        },
      ],
    },
    {
      margin: [0, 28, 0, 18],
      columns: [
        {
          width: '*',
          stack: [
            { text: paper.buyer.as, color: '#4a5a54', fontSize: 9 },
            { text: runs(paper.buyer.name), bold: true },
            ...paper.buyer.address.map((a) => ({ text: runs(a) })),
          ],
        },
        {
          width: '*',
          stack: [
            { text: paper.place.as, color: '#4a5a54', fontSize: 9 },
            { text: runs(paper.place.text) },
          ],
        },
      ],
    },
    {
      table: {
        headerRows: 1,
        widths: ['*', 'auto', 'auto', 'auto'],
        body: [
          [
            { text: 'Work and material', bold: true },
            { text: 'Quantity', bold: true, alignment: 'right' },
            { text: 'Each', bold: true, alignment: 'right' },
            { text: 'Amount', bold: true, alignment: 'right' },
          ],
          ...paper.lines.map((l) => [
            {
              stack: [
                { text: runs(l.name) },
                ...(Number(l.discount.amount) === 0
                  ? []
                  : [
                      {
                        text: `less ${sayMoney(l.discount, paper.locale)} by your price level`,
                        fontSize: 9,
                        color: '#4a5a54',
                      },
                    ]),
              ],
            },
            {
              text: `${l.quantity} ${l.unit === 'each' ? '' : l.unit}`.trim(),
              font: 'mono',
              alignment: 'right' as const,
            },
            {
              text: new Decimal(l.unitPrice).toFixed(2),
              font: 'mono',
              alignment: 'right' as const,
            },
            m(l.net),
          ]),
        ],
      },
      layout: {
        ...rule,
        hLineWidth: (i: number) => [0, 1][i] ?? 0.5,
        paddingTop: () => 5,
        paddingBottom: () => 5,
      },
    },
    {
      margin: [0, 10, 0, 0],
      columns: [
        { width: '*', text: runs(paper.remark) },
        { width: 'auto', table: { body: paper.sums.map(sum) }, layout: 'noBorders' },
      ],
    },
    {
      margin: [0, 24, 0, 0],
      stack: [
        ...paper.notes.filter(Boolean).map((n) => ({
          text: runs(n),
          margin: [0, 0, 0, 8] as [number, number, number, number],
        })),
        { text: runs(paper.conditions), color: '#4a5a54', fontSize: 9 },
      ],
    },
  ]
  return makePdf(
    { title: paper.title, author: paper.seller.name, foot: paper.number, content },
    readFont,
  )
}
/** Any paper of the firm: letter size, the firm's type, the page numbered at its foot. */
export async function makePdf(
  paper: { title: string; author: string; foot: string; content: Content[] },
  readFont: (file: string) => Promise<Buffer>,
): Promise<Buffer> {
  const make = await prepare(readFont)
  return make
    .createPdf({
      info: { title: paper.title, author: paper.author },
      pageSize: 'LETTER',
      pageMargins: [54, 54, 54, 54],
      defaultStyle: { font: 'latin', fontSize: 10.5, color: '#16241f', lineHeight: 1.25 },
      content: paper.content,
      footer: (page: number, pages: number) => ({
        text: `${paper.foot} · page ${page} of ${pages}`,
        alignment: 'center',
        fontSize: 8,
        color: '#4a5a54',
      }),
    })
    .getBuffer()
}
/** The sums beneath the lines: net, each tax, the total. */
export const sumsOf = (p: {
  net: Money
  taxes: { name: string; rate: string; tax: Money }[]
  total: Money
}): PaperDrawing['sums'] => [
  { label: 'Net', amount: p.net },
  ...p.taxes.map((t) => ({
    label: `${t.name} ${new Decimal(t.rate).times(100)} %`,
    amount: t.tax,
  })),
  { label: 'Total', amount: p.total, strong: true },
]
