// How a paper looks and what it says: kept with each paper when it is made, so that a later change reaches only later ones.
import { strangeField } from '../text/fillFields'
import { contrastOnWhite, isColour, READABLE_CONTRAST } from './contrast'
import { fieldsOfWord, PAPER_WORDS, type OwnWords, type PaperKind } from './paperWords'

/** The columns of the lines that a customer may see, beside what they are called. */
export const PAPER_COLUMNS = ['quantity', 'each', 'amount'] as const
export type PaperColumn = (typeof PAPER_COLUMNS)[number]
export const PAPER_SIZES = ['A4', 'LETTER'] as const
export interface PaperLayout {
  /** what is said otherwise than usual */
  words: OwnWords
  /** above the lines, in bold; with fields */
  subject: string
  /** above the lines; with fields */
  opening: string
  /** at the foot; where empty, what the firm says on all its papers */
  conditions: string
  /** of the title and the rules, '#1f5c4a'; where empty, ink */
  colour: string
  columns: PaperColumn[]
  /** each line, or their sum alone */
  itemised: boolean
  /** what was taken off a line, beneath it */
  discounts: boolean
  /** where empty, that of the locale */
  size: (typeof PAPER_SIZES)[number] | ''
}
/** What a paper has of which nobody said otherwise. */
export const USUAL_LAYOUT: PaperLayout = {
  ...{ words: {}, subject: '', opening: '', conditions: '', colour: '', size: '' },
  ...{ columns: [...PAPER_COLUMNS], itemised: true, discounts: true },
}
/** What the free texts of each paper may name. */
export const LAYOUT_FIELDS = {
  quote: ['name', 'site', 'title', 'number', 'date', 'until', 'total', 'order', 'company'],
  invoice: ['name', 'site', 'title', 'number', 'date', 'due', 'total', 'order', 'work', 'company'],
  signed: ['name', 'site', 'title', 'number', 'date', 'total', 'order', 'company'],
} as const satisfies Record<PaperKind, readonly string[]>
/** The facts that fill the free texts of a paper. */
export type LayoutFacts<K extends PaperKind> = Readonly<
  Record<(typeof LAYOUT_FIELDS)[K][number], string>
>
const FREE_TEXTS = ['subject', 'opening', 'conditions'] as const

/**
 * What is wrong with a layout, and where; null where nothing is: a field that would stay unfilled, a word that is none of
 * this paper, a colour that cannot be read on white.
 * @example layoutProblem('quote', { ...USUAL_LAYOUT, opening: 'Dear {nmae}' })?.field // 'opening'
 */
export function layoutProblem(
  kind: PaperKind,
  layout: PaperLayout,
): { field: string; message: string } | null {
  for (const text of FREE_TEXTS) {
    const strange = strangeField(layout[text], LAYOUT_FIELDS[kind])
    if (strange) return { field: text, message: noSuch(strange, LAYOUT_FIELDS[kind]) }
  }
  for (const [word, own] of Object.entries(layout.words)) {
    if (!(word in PAPER_WORDS[kind]))
      return { field: `words.${word}`, message: 'This word does not stand on this paper.' }
    const strange = strangeField(own, fieldsOfWord(kind, word))
    if (strange)
      return { field: `words.${word}`, message: noSuch(strange, fieldsOfWord(kind, word)) }
  }
  if (!layout.colour) return null
  if (!isColour(layout.colour)) return { field: 'colour', message: 'Write the colour as #1f5c4a.' }
  return contrastOnWhite(layout.colour) < READABLE_CONTRAST
    ? { field: 'colour', message: 'This colour is too pale to be read on white paper.' }
    : null
}
const noSuch = (name: string, known: readonly string[]): string =>
  known.length
    ? `{${name}} is not known here. There are: ${known.map((one) => `{${one}}`).join(', ')}.`
    : `{${name}} is not known here: this word stands alone.`
