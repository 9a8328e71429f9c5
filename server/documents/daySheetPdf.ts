// A technician's day on paper, for people who work from paper.
import type { Content } from 'pdfmake/interfaces'
import { bold, makePdf, PALE, pale, runs, numbered } from './makePdf'
import { paperSize } from '../../core/documents/paperSize'
import { GRID, inOneLine, rows } from './sheets'

interface Stop {
  time: string
  until: string
  drive: string
  number: string
  title: string
  customer: string
  place: string
  promise: string
  contact: string
  notes: string[]
  crew: string
}
export interface DaySheet {
  name: string
  along: string[]
  day: string
  hours: string
  stops: Stop[]
  /** meetings, breaks, time off */
  other: { time: string; text: string }[]
  home: string
}

const heading = (firm: string, { name, day, hours, along }: DaySheet): Content => ({
  columns: [
    {
      width: '*',
      stack: [
        bold(name, 18),
        pale(inOneLine(day, hours, along.length ? `with ${along.join(', ')}` : '')),
      ],
    },
    { width: 'auto', text: runs(firm), color: PALE, alignment: 'right' },
  ],
})
const stopRow = (stop: Stop): Content[] => [
  {
    stack: [
      bold(stop.time, 12),
      pale(`until ${stop.until}`),
      ...(stop.drive ? [pale(stop.drive)] : []),
    ],
  },
  {
    stack: [
      bold(stop.customer),
      ...rows(stop.place, stop.title),
      pale(inOneLine(stop.number, stop.crew)),
    ],
  },
  { stack: [...rows(stop.contact), ...stop.notes.map((note) => pale(note))] },
  { stack: rows(stop.promise || 'nothing') },
]
const stopsOf = ({ stops }: DaySheet): Content =>
  stops.length
    ? {
        margin: [0, 14, 0, 0],
        layout: GRID,
        table: {
          headerRows: 1,
          widths: [62, '*', 150, 70],
          body: [
            [bold('When'), bold('Where and what'), bold('Speak to, mind'), bold('Promised')],
            ...stops.map(stopRow),
          ],
        },
      }
    : { text: 'No visit on this day.', margin: [0, 20, 0, 0] }
function besides({ other, home }: DaySheet): Content[] {
  const others = other.map(({ time, text }) => ({ text: runs(`${time}  ${text}`) }))
  const parts: Content[][] = [
    others.length ? [bold('Besides'), ...others] : [],
    home ? [pale(home)] : [],
  ]
  return parts
    .filter((part) => part.length)
    .map((stack): Content => ({ margin: [0, 12, 0, 0], stack }))
}

/** One page, or more, for each technician. */
export const daySheetPdf = (firm: string, locale: string, sheets: DaySheet[]): Promise<Buffer> =>
  makePdf({
    title: `Day sheets, ${sheets[0]?.day ?? ''}`,
    author: firm,
    foot: numbered(firm),
    size: paperSize(locale),
    content: sheets.map((sheet, i): Content => ({
      ...(i ? { pageBreak: 'before' as const } : {}),
      stack: [heading(firm, sheet), stopsOf(sheet), ...besides(sheet)],
    })),
  })
