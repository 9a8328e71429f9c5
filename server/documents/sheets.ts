// What sheets for people who work from paper are drawn with.
import type { Content } from 'pdfmake/interfaces'
import { RULE, runs } from './makePdf'

export const GRID = {
  hLineColor: () => RULE,
  vLineColor: () => RULE,
  hLineWidth: () => 0.5,
  vLineWidth: () => 0,
  paddingTop: () => 4,
  paddingBottom: () => 4,
}
/** Rows of text, without those that are empty. */
export const rows = (...texts: string[]): Content[] =>
  texts.filter(Boolean).map((text) => ({ text: runs(text) }))
/** What is not empty, in one line. */
export const inOneLine = (...texts: string[]): string => texts.filter(Boolean).join(' · ')
