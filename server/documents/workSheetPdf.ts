// What is to be done on one visit, with room for what was done: times, parts, a signature.
import type { Content } from 'pdfmake/interfaces'
import { bold, makePdf, pale, runs, numbered } from './makePdf'
import { paperSize } from '../../core/documents/paperSize'
import { GRID, rows } from './sheets'

export interface WorkSheet {
  number: string
  title: string
  firm: string
  locale: string
  when: string
  who: string
  customer: string
  place: string
  contact: string
  problem: string
  notes: string[]
  equipment: string
  promise: string
  /** what was agreed: no prices, they are none of the paper's business */
  lines: { quantity: string; name: string }[]
  answers: { question: string; answer: string }[]
}

const part = (title: string, ...content: Content[]): Content => ({
  margin: [0, 9, 0, 0],
  stack: [bold(title), ...content],
})
const heading = (sheet: WorkSheet): Content => ({
  columns: [
    { width: '*', stack: [bold(sheet.title, 18), pale(`Work sheet ${sheet.number}`)] },
    {
      width: 'auto',
      alignment: 'right',
      stack: [
        ...rows(sheet.when, sheet.who),
        pale(sheet.promise ? `promised ${sheet.promise}` : 'nothing promised'),
      ],
    },
  ],
})
const place = (sheet: WorkSheet): Content => ({
  margin: [0, 14, 0, 0],
  columns: [
    { width: '*', stack: [pale('Where'), bold(sheet.customer), ...rows(sheet.place)] },
    {
      width: '*',
      stack: [
        pale('Speak to'),
        ...rows(sheet.contact || '–'),
        ...sheet.notes.map((note) => ({ text: runs(note), bold: true })),
      ],
    },
  ],
})
const askedFor = (sheet: WorkSheet): Content =>
  part(
    'Asked for',
    ...rows(sheet.problem || '–'),
    ...(sheet.equipment ? [pale(sheet.equipment)] : []),
    ...sheet.answers.map(({ question, answer }) => pale(`${question} ${answer}`)),
  )
const toBeDone = ({ lines }: WorkSheet): Content =>
  part(
    'To be done',
    lines.length
      ? { ul: lines.map(({ quantity, name }) => ({ text: runs(`${quantity} × ${name}`) })) }
      : pale('Nothing was agreed yet.'),
  )
/** Empty rows to write in. */
const blank = (count: number, columns: readonly [head: string, width: string | number][]) => {
  const empty: Content = { text: ' ', margin: [0, 2, 0, 2] }
  return {
    margin: [0, 6, 0, 0],
    layout: { ...GRID, vLineWidth: () => 0.5 },
    table: {
      widths: columns.map(([, width]) => width),
      body: [
        columns.map(([head]) => bold(head)),
        ...Array.from({ length: count }, () => columns.map(() => ({ ...empty }))),
      ],
    },
  } as Content
}
const toSign = (who: string) => ({
  width: '*',
  stack: [{ text: '________________________________' }, pale(who)],
})

export const workSheetPdf = (sheet: WorkSheet): Promise<Buffer> =>
  makePdf({
    title: `Work sheet ${sheet.number}`,
    author: sheet.firm,
    foot: numbered(`${sheet.number} · ${sheet.firm}`),
    size: paperSize(sheet.locale),
    content: [
      heading(sheet),
      place(sheet),
      askedFor(sheet),
      toBeDone(sheet),
      part(
        'Times',
        blank(2, [
          ['Set off', '*'],
          ['Arrived', '*'],
          ['Paused', '*'],
          ['Left', '*'],
        ]),
      ),
      part(
        'Parts and work that came up',
        blank(3, [
          ['How many', 64],
          ['What', '*'],
          ['Price', 80],
        ]),
      ),
      part('Found and done', blank(2, [[' ', '*']])),
      {
        margin: [0, 16, 0, 0],
        columns: [toSign('The customer'), toSign('The technician')],
      },
    ],
  })
