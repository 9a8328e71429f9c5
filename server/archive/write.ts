// Everything of a firm as one file, as it stood at one moment: rows as JSON by subject with their schemas, tables for a
// spreadsheet, cards, the journal, papers, photos. The same firm makes the same bytes.
import { Readable } from 'node:stream'
import { ZipFile } from 'yazl'
import type { Ctx } from '../http/context'
import { VERSION } from '../figures/version'
import { openExports } from '../figures/exports'
import { subjects } from '../subjects'
import { keptTables, type Kept } from './contents'
import {
  bytesOf,
  eachRow,
  lastMigration,
  rowsWithBytes,
  tablesWithColumns,
  type Column,
  type TableColumns,
} from './queries'
import { endingOf, fileOf, schemaOf, written } from './rows'

export const FORMAT = 'open-ledger-archive'
export const FORMAT_VERSION = 1
export const CONTENTS = 'archive.json'
export const rowsFile = (subject: string, table: string) => `data/${subject}/${table}.jsonl`
const schemaFile = (subject: string, table: string) => `data/${subject}/${table}.schema.json`

/** When a file was made says nothing of what is in it: all have the earliest day that the format knows. */
const STAMP = { mtime: new Date(1980, 0, 1), mode: 0o100644 }
/** Pictures are small already. */
const isSmall = (path: string) => /\.(jpg|png|webp|pdf)$/.test(path)
type Source = () => AsyncIterable<string | Buffer> | Iterable<string | Buffer>
function add(zip: ZipFile, { path, source }: Entry): void {
  zip.addReadStreamLazy(path, { ...STAMP, compress: !isSmall(path) }, (done) =>
    done(null, Readable.from(source(), { objectMode: false })),
  )
}
const addText = (zip: ZipFile, path: string, text: string) =>
  zip.addBuffer(Buffer.from(text), path, STAMP)
const asJson = (value: unknown) => `${JSON.stringify(value, null, 2)}\n`

interface Part {
  subject: string
  of: TableColumns
  kept: Kept
}
/** What goes along of each table that does. */
export function partsOf(tables: readonly TableColumns[]): Part[] {
  const byName = new Map(tables.map((of) => [of.table, of]))
  return keptTables.map(({ subject, table, kept }) => {
    const { columns } = byName.get(table)!
    const along = (column: Column) => !kept.without?.includes(column.name)
    return { subject, of: { table, columns: columns.filter(along) }, kept }
  })
}
const WORTH_A_PIECE = 65_536
async function* lines(ctx: Ctx, { of, kept }: Part): AsyncGenerator<string> {
  let text = ''
  for await (const row of eachRow(ctx.tx, of, kept)) {
    text += `${JSON.stringify(written(row, of.table, of.columns, kept))}\n`
    if (text.length < WORTH_A_PIECE) continue
    yield text
    text = ''
  }
  if (text) yield text
}
interface Entry {
  path: string
  source: Source
}
/** One thing of its own, read or drawn when its turn comes. */
const single = (path: string, make: () => Promise<Buffer>): Entry => ({
  path,
  async *source() {
    yield await make()
  },
})
async function filesOf(ctx: Ctx, { of: { table }, kept }: Part): Promise<Entry[]> {
  const entries: Entry[] = []
  for (const [column, file] of Object.entries(kept.files ?? {})) {
    const kindIn = 'kindIn' in file ? file.kindIn : null
    for (const { id, kind } of await rowsWithBytes(ctx.tx, { table, column, kindIn })) {
      const ending = 'ending' in file ? file.ending : endingOf(kind)
      const path = fileOf(table, id, ending)
      entries.push(single(path, () => bytesOf(ctx.tx, table, column, id)))
    }
  }
  return entries
}
async function papersOf(ctx: Ctx): Promise<Entry[]> {
  const entries: Entry[] = []
  for (const { papers } of subjects)
    for (const { path, draw } of (await papers?.(ctx)) ?? [])
      entries.push(single(`papers/${path}`, draw))
  return entries
}
const rowsOf = (ctx: Ctx, part: Part): Entry => ({
  path: rowsFile(part.subject, part.of.table),
  source: () => lines(ctx, part),
})
const schemaText = ({ of, kept }: Part) => asJson(schemaOf(of.table, of.columns, kept))
const READ_ME = `Everything of a firm, from Open Ledger. All of it can be read without Open Ledger.

archive.json   what made it, and which tables it holds
data/          each table as JSON Lines (one JSON object a line), beside it what each line is (JSON Schema, draft 2020-12)
tables/        what a spreadsheet reads (CSV, RFC 4180), and cards for an address book (vCard, RFC 6350)
journal/       the ledger as a plain-text double-entry journal
papers/        invoices, with what was paid on them since, and quotes as they were sent last, as PDF
files/         photos, pictures, signatures, attachments

Not in it: passwords, and whatever else opens the app. Whoever takes it in gives everybody a new way in.
`
const contents = async (ctx: Ctx, parts: readonly Part[]) =>
  asJson({
    ...{ format: FORMAT, formatVersion: FORMAT_VERSION, madeBy: VERSION },
    schema: await lastMigration(ctx.tx),
    firm: ctx.company.name,
    tables: parts.map(({ subject, of }) => ({ subject, table: of.table })),
  })
/** The archive, piece by piece as it is drawn. */
export async function* archive(ctx: Ctx): AsyncGenerator<Buffer> {
  const parts = partsOf(await tablesWithColumns(ctx.tx))
  const head = await contents(ctx, parts)
  const late: Entry[] = await papersOf(ctx)
  for (const part of parts) late.push(...(await filesOf(ctx, part)))
  // From the first entry on, the connection belongs to whatever is being read: all questions are asked before.
  const zip = new ZipFile()
  const output = zip.outputStream as Readable
  zip.on('error', (error) => output.destroy(error as Error))
  addText(zip, 'README.txt', READ_ME)
  addText(zip, CONTENTS, head)
  for (const part of parts) {
    addText(zip, schemaFile(part.subject, part.of.table), schemaText(part))
    add(zip, rowsOf(ctx, part))
  }
  for (const { path, write } of openExports) add(zip, { path, source: () => write(ctx) })
  for (const entry of late) add(zip, entry)
  zip.end()
  yield* output as AsyncIterable<Buffer>
}
