// A paper of the firm as PDF: letterhead, parties, lines, sums. It draws a document, and computes nothing.
import type { Content } from 'pdfmake/interfaces'
import type { PaperDocument } from '../../core/documents/paperDocument'
import { makePdf, PALE, pale, RULE, runs } from './makePdf'

const SIZE = 10.5
const figures = (text: string): object => ({
  text,
  font: 'mono',
  alignment: 'right',
  noWrap: true,
})
const head = (text: string, alignment?: 'right') => ({ text: runs(text), bold: true, alignment })

/** In the firm’s colour, where it has one. */
const inked = (colour: string) => (colour ? { color: colour } : {})
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
function letterhead(
  { seller, head: lines, title, facts, colour }: PaperDocument,
  logo: Logo | null,
): Content {
  return {
    columns: [
      {
        width: '*',
        stack: [
          ...pictured(logo),
          { text: runs(seller.name), fontSize: 16, bold: true },
          ...lines.map((text) => pale(text, SIZE)),
        ],
      },
      {
        width: 'auto',
        alignment: 'right',
        stack: [
          { text: runs(title), fontSize: 16, bold: true, ...inked(colour) },
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
const openingOf = ({ subject, opening }: PaperDocument): Content => ({
  stack: [
    ...(subject ? [{ text: runs(subject), bold: true, margin: [0, 0, 0, 6] } as Content] : []),
    ...(opening ? [{ text: runs(opening), margin: [0, 0, 0, 10] } as Content] : []),
  ],
})
const lineRow =
  ({ columns }: PaperDocument) =>
  (line: PaperDocument['lines'][number]): Content[] =>
    columns.map(({ key }) =>
      key === 'name'
        ? { stack: [{ text: runs(line.name) }, ...(line.beneath ? [pale(line.beneath)] : [])] }
        : (figures(line[key]) as Content),
    )
const table = (paper: PaperDocument): Content => ({
  table: {
    headerRows: 1,
    widths: paper.columns.map(({ key }) => (key === 'name' ? '*' : 'auto')),
    body: [
      paper.columns.map(({ key, label }) => head(label, key === 'name' ? undefined : 'right')),
      ...paper.lines.map(lineRow(paper)),
    ],
  },
  layout: {
    hLineColor: () => paper.colour || RULE,
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
    foot: paper.foot,
    size: paper.size,
    content: [
      letterhead(paper, logo),
      parties(paper),
      openingOf(paper),
      ...[table(paper), sums(paper), foot(paper)],
    ],
  })
