// A backup as a file: whether it is whole, and what it holds.
import { closeSync, createReadStream, openSync, readSync, statSync } from 'node:fs'

const EDGE_BYTES = 4096
const HEAD = /^(?:\/\*[^\n]*\*\/\s*)?-- (?:MariaDB|MySQL) dump /
const TAIL = /^-- Dump completed(?: on [^\n]*)?\s*$/m

function edge(file: string, fromEnd: boolean): string {
  const { size } = statSync(file)
  const length = Math.min(EDGE_BYTES, size)
  const bytes = Buffer.alloc(length)
  const handle = openSync(file, 'r')
  readSync(handle, bytes, 0, length, fromEnd ? size - length : 0)
  closeSync(handle)
  return bytes.toString('utf8')
}
/** What is wrong with a file, in a sentence; empty for a backup that is there from its first line to its last. */
export function faultOfDump(file: string): string {
  if (statSync(file).size === 0) return `${file} is empty. Nothing was changed.`
  if (!HEAD.test(edge(file, false)))
    return `${file} is no backup of Open Ledger: it does not begin like one. Nothing was changed.`
  if (!TAIL.test(edge(file, true)))
    return `${file} is cut: its last line is missing. Nothing was changed.`
  return ''
}

/** How many rows the INSERT statements of a line of a dump put in: tuples, counted outside of texts. */
export function tuplesIn(line: string): number {
  let count = 0
  let depth = 0
  let quoted = false
  for (let i = line.indexOf(' VALUES'); i >= 0 && i < line.length; i++) {
    const sign = line[i]
    if (quoted) {
      if (sign === '\\') i++
      else if (sign === "'") quoted = false
    } else if (sign === "'") quoted = true
    else if (sign === '(') {
      if (depth++ === 0) count++
    } else if (sign === ')') depth--
  }
  return count
}
const TABLE = /^CREATE TABLE `(\w+)`/
const INSERT = /^INSERT INTO `(\w+)`/
/** The tables of a dump with the number of their rows. A statement may go over several lines. */
export async function rowsInDump(file: string): Promise<Map<string, number>> {
  const rows = new Map<string, number>()
  let statement = ''
  const take = () => {
    const table = INSERT.exec(statement)?.[1]
    if (table) rows.set(table, (rows.get(table) ?? 0) + tuplesIn(statement))
    statement = ''
  }
  let rest = ''
  for await (const chunk of createReadStream(file, { encoding: 'utf8' })) {
    const lines = (rest + String(chunk)).split('\n')
    rest = lines.pop()!
    for (const line of lines) {
      const made = TABLE.exec(line)?.[1]
      if (made) rows.set(made, 0)
      if (INSERT.test(line)) take()
      if (statement || INSERT.test(line)) statement += `${line}\n`
      // The dump ends each statement with a semicolon at the end of a line; a line break inside a text is written as \n.
      if (statement && line.endsWith(';')) take()
    }
  }
  return rows
}
