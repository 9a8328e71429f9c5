import Papa from 'papaparse'
import { InvalidValue } from '../errors/InvalidValue'

export interface Table {
  head: string[]
  rows: string[][]
}

/**
 * Reads comma-separated values as RFC 4180 describes them, and their relatives with semicolons or tabs: quotes, doubled
 * quotes, line breaks inside quotes, a byte order mark. The first row is the head; rows of blanks are left out, short
 * rows are filled up. Cells are trimmed.
 * @throws InvalidValue when it is no such file (no row, or signs that no text has)
 * @example readCsv('name;town\n"Marrow; Son";Otterfall').rows // [['Marrow; Son', 'Otterfall']]
 */
export function readCsv(text: string): Table {
  if (/\u0000|\uFFFD{2}/.test(text.slice(0, 4000)))
    throw new InvalidValue('This is not a text file with comma-separated values.')
  const plain = text.replace(/^\uFEFF/, '')
  const { data } = Papa.parse<string[]>(plain, {
    skipEmptyLines: 'greedy',
    delimiter: separatorOf(plain),
  })
  const [head, ...rows] = data.map((row) => row.map((cell) => cell.trim()))
  if (!head || head.every((cell) => cell === ''))
    throw new InvalidValue('There is nothing in this file.')
  return { head, rows: rows.map((row) => head.map((_, i) => row[i] ?? '')) }
}
/** The sign that divides the first row most often outside quotes; a comma where none does. */
function separatorOf(text: string): string {
  const first = text.replace(/"[^"]*"/g, '').split(/\r?\n/)[0]!
  const count = (sign: string) => first.split(sign).length
  return [',', ';', '\t', '|'].reduce((best, sign) => (count(sign) > count(best) ? sign : best))
}
