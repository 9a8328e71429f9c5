// Any paper of the firm as PDF: the paper of its country, the firm's type, the page numbered at its foot.
// Text outside the Latin subset takes the extended cut of the same typeface, run by run.
import pdfmake from 'pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { paperSize } from '../../core/documents/paperSize'
import { fillFields } from '../../core/text/fillFields'
import { readFont } from './fonts'
import { sfntOf } from './sfnt'

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
async function prepare(): Promise<Make> {
  const make = pdfmake as unknown as Make
  if (!ready) {
    for (const base of Object.values(FILES))
      for (const weight of [400, 700])
        make.virtualfs.writeFileSync(
          `${base}-${weight}.ttf`,
          sfntOf(await readFont(`${base}-${weight}-normal.woff`)),
        )
    const font = (base: string) => ({
      normal: `${base}-400.ttf`,
      bold: `${base}-700.ttf`,
      italics: `${base}-400.ttf`,
      bolditalics: `${base}-700.ttf`,
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

/** Ink of second rank: what explains, and is not the matter. */
export const PALE = '#4a5a54'
export const RULE = '#b9c5bf'
export const pale = (text: string, fontSize = 9): Content => ({
  text: runs(text),
  color: PALE,
  fontSize,
})
export const bold = (text: string, fontSize = 10.5): Content => ({
  text: runs(text),
  bold: true,
  fontSize,
})

/** A foot that numbers its pages. */
export const numbered = (foot: string): string => `${foot} · page {page} of {pages}`
export interface Printed {
  title: string
  author: string
  /** at the foot of each page, with `{page}` and `{pages}` */
  foot: string
  size: ReturnType<typeof paperSize>
  content: Content[]
  /** when it is said to be made, where that is not now: the same paper is the same file then */
  madeAt?: Date | undefined
}
export async function makePdf(paper: Printed): Promise<Buffer> {
  const make = await prepare()
  return make
    .createPdf({
      info: {
        ...{ title: paper.title, author: paper.author },
        ...(paper.madeAt && { creationDate: paper.madeAt }),
      },
      pageSize: paper.size,
      pageMargins: [54, 54, 54, 54],
      defaultStyle: { font: 'latin', fontSize: 10.5, color: '#16241f', lineHeight: 1.25 },
      content: paper.content,
      footer: (page: number, pages: number) => ({
        text: fillFields(paper.foot, { page: String(page), pages: String(pages) }),
        alignment: 'center',
        fontSize: 8,
        color: PALE,
      }),
    })
    .getBuffer()
}
