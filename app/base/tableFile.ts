// A table as a file: what its columns say, row by row, for any spreadsheet.
import { writeCsv } from '~~/core/formats/csv'
import type { Column } from './columns'

/** Columns that say something without being drawn; those of acts alone are left out. */
const said = <Row>(columns: readonly Column<Row>[]) =>
  columns.filter((column) => column.label && (column.file ?? column.text))

/** Heads and rows as CSV: a sum as its number, all else as it is read on the screen. */
export function tableCsv<Row>(columns: readonly Column<Row>[], rows: readonly Row[]): string {
  const kept = said(columns)
  return writeCsv([
    kept.map((column) => column.label!),
    ...rows.map((row, index) =>
      kept.map((column) => (column.file ? column.file(row) : column.text!(row, index)) ?? null),
    ),
  ])
}
/** Hands a text to the browser as a file to keep. */
export function saveFile(name: string, text: string): void {
  // Spreadsheets take a file for another alphabet unless it begins with this mark.
  const url = URL.createObjectURL(new Blob(['\ufeff', text], { type: 'text/csv;charset=utf-8' }))
  const link = Object.assign(document.createElement('a'), { href: url, download: `${name}.csv` })
  link.click()
  URL.revokeObjectURL(url)
}
