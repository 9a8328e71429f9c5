// A paper of the firm as PDF: letterhead, parties, lines, sums. It draws a document, and computes nothing.
import type { Content } from 'pdfmake/interfaces'
import { letterheadLines } from '../../core/documents/letterhead'
import { PAPER_COLUMNS, type PaperDocument } from '../../core/documents/paperDocument'
import { makePdf, PALE, pale, RULE, runs } from './makePdf'

const SIZE = 10.5
const figures = (text: string): object => ({
  text,
  font: 'mono',
  alignment: 'right',
  noWrap: true,
})
const head = (text: string, alignment?: 'right') => ({ text, bold: true, alignment })

/** The room that a logo has, in points: the height of four lines, a third of the paper's width. */
const LOGO_ROOM: [number, number] = [170, 56]
const pictured = (logo: Logo | null): Content[] =>
  logo
    ? [
        {
          image: `data:${logo.mime};base64,${logo.bytes.toString('base64')}`,
          fit: LOGO_ROOM,
          margin: [0, 0, 0, 8],
        },
      ]
    : []
function letterhead({ seller, title, facts }: PaperDocument, logo: Logo | null): Content {
  return {
    columns: [
      {
        width: '*',
        stack: [
          ...pictured(logo),
          { text: runs(seller.name), fontSize: 16, bold: true },
          ...letterheadLines(seller).map((text) => pale(text, SIZE)),
        ],
      },
      {
        width: 'auto',
        alignment: 'right',
        stack: [
          { text: title, fontSize: 16, bold: true },
          ...facts.map((fact) => ({ text: runs(fact.text), bold: fact.strong })),
        ],
      },
    ],
  }
}
const parties = ({ buyer, place }: PaperDocument): Content => ({
  margin: [0, 28, 0, 18],
  columns: [
    {
      width: '*',
      stack: [
        pale(buyer.as),
        { text: runs(buyer.name), bold: true },
        ...buyer.address.map((text) => ({ text: runs(text) })),
      ],
    },
    { width: '*', stack: [pale(place.as), { text: runs(place.text) }] },
  ],
})
const lineRow = (line: PaperDocument['lines'][number]): Content[] => [
  { stack: [{ text: runs(line.name) }, ...(line.beneath ? [pale(line.beneath)] : [])] },
  figures(line.quantity) as Content,
  figures(line.each) as Content,
  figures(line.amount) as Content,
]
const table = (paper: PaperDocument): Content => ({
  table: {
    headerRows: 1,
    widths: ['*', 'auto', 'auto', 'auto'],
    body: [
      [
        head(PAPER_COLUMNS.name),
        head(PAPER_COLUMNS.quantity, 'right'),
        head(PAPER_COLUMNS.each, 'right'),
        head(PAPER_COLUMNS.amount, 'right'),
      ],
      ...paper.lines.map(lineRow),
    ],
  },
  layout: {
    hLineColor: () => RULE,
    vLineWidth: () => 0,
    hLineWidth: (i: number) => [0, 1][i] ?? 0.5,
    paddingTop: () => 5,
    paddingBottom: () => 5,
  },
})
const sums = (paper: PaperDocument): Content => ({
  margin: [0, 10, 0, 0],
  columns: [
    { width: '*', text: runs(paper.remark) },
    {
      width: 'auto',
      layout: 'noBorders',
      table: {
        body: paper.sums.map(({ label, amount, strong }) => [
          { text: runs(label), bold: strong, alignment: 'right' as const },
          { ...figures(amount), bold: strong } as Content,
        ]),
      },
    },
  ],
})
const foot = (paper: PaperDocument): Content => ({
  margin: [0, 24, 0, 0],
  stack: [
    ...paper.notes.map((text): Content => ({ text: runs(text), margin: [0, 0, 0, 8] })),
    { text: runs(paper.conditions), color: PALE, fontSize: 9 },
  ],
})

/** The picture above the name, as it was when the paper was made. */
export interface Logo {
  mime: string
  bytes: Buffer
}
export const paperPdf = (
  paper: PaperDocument,
  { logo = null, madeAt }: { logo?: Logo | null; madeAt?: Date } = {},
): Promise<Buffer> =>
  makePdf({
    madeAt,
    title: paper.title,
    author: paper.seller.name,
    foot: paper.number,
    locale: paper.locale,
    content: [letterhead(paper, logo), parties(paper), table(paper), sums(paper), foot(paper)],
  })
