// A file with rows, as somebody chose it: its text in whatever code page, its size, its rows bounded; a sentence where it cannot be taken.
import { readCsv, type Table } from '~~/core/formats/readCsv'

export async function textOf(file: File, mostBytes: number): Promise<string> {
  if (file.size > mostBytes)
    throw new RangeError(
      `${Math.round(file.size / 1e6)} MB are too many; ${mostBytes / 1e6} MB are taken here. Divide it into several files.`,
    )
  const bytes = await file.arrayBuffer()
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    // Older lists are written in the western code page.
    return new TextDecoder('windows-1252').decode(bytes)
  }
}
export function tableOf(
  text: string,
  mostRows: number,
  read: (text: string) => Table = readCsv,
): Table {
  const got = read(text)
  if (got.rows.length === 0) throw new RangeError('There is a heading and no row beneath it.')
  if (got.rows.length > mostRows)
    throw new RangeError(`There are ${got.rows.length} rows; ${mostRows} are taken at a time.`)
  if (got.head.length > 60)
    throw new RangeError('There are more than 60 columns. Leave out those that are not needed.')
  return got
}
