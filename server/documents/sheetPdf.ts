// Sheets for people who work from paper: a technician's day, and what is to be done on one visit.
import type { Content } from 'pdfmake/interfaces'
import { makePdf, runs } from './paperPdf'

const rule = {
  hLineColor: () => '#b9c5bf',
  vLineColor: () => '#b9c5bf',
  hLineWidth: () => 0.5,
  vLineWidth: () => 0,
  paddingTop: () => 4,
  paddingBottom: () => 4,
}
const pale = (text: string): Content => ({ text: runs(text), color: '#4a5a54', fontSize: 9 })
const bold = (text: string, size = 10.5): Content => ({
  text: runs(text),
  bold: true,
  fontSize: size,
})
const lines = (...rows: string[]): Content[] => rows.filter(Boolean).map((t) => ({ text: runs(t) }))

export interface DaySheet {
  name: string
  along: string[]
  day: string
  hours: string
  stops: {
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
  }[]
  /** meetings, breaks, time off */
  other: { time: string; text: string }[]
  home: string
}
/** One page, or more, for each technician. */
export function daySheetPdf(
  firm: string,
  sheets: DaySheet[],
  readFont: (file: string) => Promise<Buffer>,
): Promise<Buffer> {
  const content: Content[] = sheets.map((s, i): Content => ({
    ...(i ? { pageBreak: 'before' as const } : {}),
    stack: [
      {
        columns: [
          {
            width: '*',
            stack: [
              bold(s.name, 18),
              pale(
                [s.day, s.hours, s.along.length ? `with ${s.along.join(', ')}` : '']
                  .filter(Boolean)
                  .join(' · '),
              ),
            ],
          },
          { width: 'auto', text: runs(firm), color: '#4a5a54', alignment: 'right' },
        ],
      },
      s.stops.length
        ? {
            margin: [0, 14, 0, 0],
            layout: rule,
            table: {
              headerRows: 1,
              widths: [62, '*', 150, 70],
              body: [
                [bold('When'), bold('Where and what'), bold('Speak to, mind'), bold('Promised')],
                ...s.stops.map((v) => [
                  {
                    stack: [
                      bold(v.time, 12),
                      pale(`until ${v.until}`),
                      ...(v.drive ? [pale(v.drive)] : []),
                    ],
                  },
                  {
                    stack: [
                      bold(v.customer),
                      ...lines(v.place, v.title),
                      pale([v.number, v.crew].filter(Boolean).join(' · ')),
                    ],
                  },
                  { stack: [...lines(v.contact), ...v.notes.map(pale)] },
                  { stack: lines(v.promise || 'nothing') },
                ]),
              ],
            },
          }
        : { text: 'No visit on this day.', margin: [0, 20, 0, 0] },
      ...(s.other.length
        ? [
            {
              margin: [0, 12, 0, 0] as [number, number, number, number],
              stack: [
                bold('Besides'),
                ...s.other.map((o) => ({ text: runs(`${o.time}  ${o.text}`) })),
              ],
            },
          ]
        : []),
      ...(s.home
        ? [
            {
              margin: [0, 12, 0, 0] as [number, number, number, number],
              ...(pale(s.home) as object),
            } as Content,
          ]
        : []),
    ],
  }))
  return makePdf(
    { title: `Day sheets, ${sheets[0]?.day ?? ''}`, author: firm, foot: firm, content },
    readFont,
  )
}

export interface WorkSheet {
  number: string
  title: string
  firm: string
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
/** What is to be done, with room for what was done: times, parts, a signature. */
export function workSheetPdf(
  w: WorkSheet,
  readFont: (file: string) => Promise<Buffer>,
): Promise<Buffer> {
  const blank = (n: number, widths: (string | number)[], head: string[]): Content => ({
    margin: [0, 6, 0, 0],
    layout: { ...rule, vLineWidth: () => 0.5 },
    table: {
      widths,
      body: [
        head.map((h) => bold(h)),
        ...Array.from({ length: n }, () =>
          head.map(() => ({ text: ' ', margin: [0, 2, 0, 2] as [number, number, number, number] })),
        ),
      ],
    },
  })
  const part = (title: string, ...content: Content[]): Content => ({
    margin: [0, 9, 0, 0],
    stack: [bold(title), ...content],
  })
  return makePdf(
    {
      title: `Work sheet ${w.number}`,
      author: w.firm,
      foot: `${w.number} · ${w.firm}`,
      content: [
        {
          columns: [
            { width: '*', stack: [bold(w.title, 18), pale(`Work sheet ${w.number}`)] },
            {
              width: 'auto',
              alignment: 'right',
              stack: [
                ...lines(w.when, w.who),
                pale(w.promise ? `promised ${w.promise}` : 'nothing promised'),
              ],
            },
          ],
        },
        {
          margin: [0, 14, 0, 0],
          columns: [
            { width: '*', stack: [pale('Where'), bold(w.customer), ...lines(w.place)] },
            {
              width: '*',
              stack: [
                pale('Speak to'),
                ...lines(w.contact || '–'),
                ...w.notes.map((n) => ({ text: runs(n), bold: true })),
              ],
            },
          ],
        },
        part(
          'Asked for',
          ...lines(w.problem || '–'),
          ...(w.equipment ? [pale(w.equipment)] : []),
          ...w.answers.map((a) => pale(`${a.question} ${a.answer}`)),
        ),
        part(
          'To be done',
          ...(w.lines.length
            ? [{ ul: w.lines.map((l) => ({ text: runs(`${l.quantity} × ${l.name}`) })) }]
            : [pale('Nothing was agreed yet.')]),
        ),
        part('Times', blank(2, ['*', '*', '*', '*'], ['Set off', 'Arrived', 'Paused', 'Left'])),
        part('Parts and work that came up', blank(3, [64, '*', 80], ['How many', 'What', 'Price'])),
        part('Found and done', blank(2, ['*'], [' '])),
        {
          margin: [0, 16, 0, 0],
          columns: [
            {
              width: '*',
              stack: [{ text: '________________________________' }, pale('The customer')],
            },
            {
              width: '*',
              stack: [{ text: '________________________________' }, pale('The technician')],
            },
          ],
        },
      ],
    },
    readFont,
  )
}
