// A letter of the firm to a customer, on paper.
import type { Content } from 'pdfmake/interfaces'
import { bold, makePdf, pale, runs, numbered } from './makePdf'
import { paperSize } from '../../core/documents/paperSize'
import { inOneLine, rows } from './sheets'

export interface Letter {
  locale: string
  from: { name: string; address: string[]; phone: string; email: string }
  to: string[]
  /** the day it is written, in words */
  on: string
  subject: string
  body: string
}
const heading = ({ from, to, on }: Letter): Content[] => [
  bold(from.name, 16),
  pale(inOneLine(...from.address, from.phone, from.email)),
  { stack: rows(...to), margin: [0, 36, 0, 24] },
  { text: runs(on), margin: [0, 0, 0, 18] },
]
/** Paragraphs stay apart as they were written. */
const text = ({ subject, body }: Letter): Content[] => [
  { ...(bold(subject, 12) as object), margin: [0, 0, 0, 12] } as Content,
  ...body.split(/\n{2,}/).map((part): Content => ({ text: runs(part), margin: [0, 0, 0, 10] })),
]
export const letterPdf = (letter: Letter): Promise<Buffer> =>
  makePdf({
    title: letter.subject,
    author: letter.from.name,
    foot: numbered(letter.from.name),
    size: paperSize(letter.locale),
    content: [...heading(letter), ...text(letter)],
  })
