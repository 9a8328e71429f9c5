// An archive becomes the firm of a database that has none: in one transaction, or not at all.
import { fieldOf, type Tx, type Value } from '../db/pool'
import { checkBooks } from '../ledger/checkBooks'
import { keptTables, LEFT, type Kept } from './contents'
import {
  emptyTable,
  hasOrphan,
  insertRows,
  lastMigration,
  looseReferences,
  references,
  tablesWithColumns,
  type Column,
} from './queries'
import { openArchive, refusal, type Opened } from './read'
import { takenRow, type Row } from './rows'
import { CONTENTS, FORMAT, FORMAT_VERSION, rowsFile } from './write'

interface Contents {
  firm: string
  madeBy: string
  schema: string
  tables: { subject: string; table: string }[]
}
export interface Archived extends Contents {
  opened: Opened
}
const isText = (value: unknown): value is string => typeof value === 'string'
const isTable = (value: unknown): boolean => {
  const { subject, table } = (value ?? {}) as Partial<Contents['tables'][number]>
  return isText(subject) && isText(table)
}
function contentsIn(text: string): Contents {
  let read: Partial<Contents> & { format?: unknown; formatVersion?: unknown }
  try {
    read = JSON.parse(text) as typeof read
  } catch {
    throw refusal('Its list of contents cannot be read. Nothing was taken in.')
  }
  const { format, schema, tables } = read
  if (format !== FORMAT || !isText(schema) || !Array.isArray(tables) || !tables.every(isTable))
    throw refusal('This is no archive of Open Ledger. Nothing was taken in.')
  if (read.formatVersion !== FORMAT_VERSION)
    throw refusal('This archive was made by a later version. Start that one, and take it in there.')
  return read as Contents
}
/** Opens an archive and reads what it says of itself; whoever opened it closes it. */
export async function readArchive(file: string): Promise<Archived> {
  const opened = await openArchive(file)
  try {
    if (!opened.has(CONTENTS))
      throw refusal('This is no archive of Open Ledger. Nothing was taken in.')
    return { ...contentsIn(await opened.text(CONTENTS)), opened }
  } catch (error) {
    opened.close()
    throw error
  }
}

interface Table {
  subject: string
  table: string
  columns: Column[]
  kept: Kept
}
async function tablesFor(tx: Tx, { schema, madeBy, tables }: Contents): Promise<Table[]> {
  if ((await lastMigration(tx)) !== schema)
    throw refusal(
      `This archive was made by version ${madeBy}, whose tables are others. Whoever runs Open Ledger takes it in by: npm run archive -- in FILE`,
    )
  const there = new Map((await tablesWithColumns(tx)).map((t) => [t.table, t.columns]))
  const named = new Set(tables.map(({ table }) => table))
  const missing = keptTables.find(({ table }) => there.has(table) && !named.has(table))
  if (missing || named.size < tables.length)
    throw refusal(`It does not hold ${missing?.table ?? 'each table once'}. Nothing was taken in.`)
  return tables.map(({ subject, table }) => {
    const columns = there.get(table)
    if (!columns || LEFT[table])
      throw refusal(`It holds ${table}, which is not known here. Nothing was taken in.`)
    // By its name alone: what an archive says of itself opens nothing. An earlier version had tables that are gone now.
    const kept = keptTables.find((one) => one.table === table)?.kept ?? {}
    const along = columns.filter(({ name }) => !kept.without?.includes(name))
    return { subject, table, columns: along, kept }
  })
}
const ROWS_AT_ONCE = 500
const WITH_FILES_AT_ONCE = 20
function readLine(line: string): unknown {
  try {
    return JSON.parse(line)
  } catch {
    return null
  }
}
function rowIn(line: string, { table, columns }: Table): Row {
  const row = readLine(line) as Row | null
  if (row === null || typeof row !== 'object')
    throw refusal(`A line of ${table} cannot be read. Nothing was taken in.`)
  const known = new Set(columns.map(({ name }) => fieldOf(name)))
  const strange = Object.keys(row).find((field) => !known.has(field))
  if (strange)
    throw refusal(`A line of ${table} has ${strange}, which is not known. Nothing was taken in.`)
  return row
}
async function fill(tx: Tx, of: Table, opened: Opened): Promise<number> {
  const atOnce = of.kept.files ? WITH_FILES_AT_ONCE : ROWS_AT_ONCE
  let [rows, count]: [Value[][], number] = [[], 0]
  const put = async () => {
    if (rows.length) await insertRows(tx, of.table, of.columns, rows)
    count += rows.length
    rows = []
  }
  await emptyTable(tx, of.table)
  for await (const line of opened.lines(rowsFile(of.subject, of.table))) {
    if (!line) continue
    rows.push(await takenRow(rowIn(line, of), of.columns, of.kept, opened.bytes))
    if (rows.length === atOnce) await put()
  }
  await put()
  return count
}
async function checkWhole(tx: Tx): Promise<void> {
  for (const reference of await references(tx))
    if (await hasOrphan(tx, reference))
      throw refusal(
        `${reference.table} refers to ${reference.toTable} that are not in it. Nothing was taken in.`,
      )
  const wrong = (await checkBooks(tx)).find((check) => check.wrong.length > 0)
  if (wrong) throw refusal(`The books in it do not agree (${wrong.name}). Nothing was taken in.`)
}
/** What the database says of a row that it does not take, for people. */
const isOfRow = (error: unknown) => /^(ER|WARN)_/.test((error as { code?: string }).code ?? '')

/** Fills an empty database from an archive; answers how many rows there were. */
export async function takeIn(tx: Tx, archived: Archived): Promise<number> {
  const tables = await tablesFor(tx, archived)
  let rows = 0
  await looseReferences(tx, true)
  try {
    for (const table of tables) {
      try {
        rows += await fill(tx, table, archived.opened)
      } catch (error) {
        if (!isOfRow(error)) throw error
        throw refusal(`A row of ${table.table} cannot be taken in. Nothing was taken in.`)
      }
    }
  } finally {
    await looseReferences(tx, false)
  }
  await checkWhole(tx)
  return rows
}
