// The books and the tables in open formats, written row by row.
import { writeCsv } from '../../core/formats/csv'
import { writeEntry, writeJournalHead, type JournalEntry } from '../../core/formats/journal'
import { ACCOUNTS } from '../../core/ledger/accounts'
import { minorToDecimal } from '../../core/money/formatMinor'
import { fieldOf } from '../db/pool'
import type { Ctx } from '../http/context'
import { accountName, journalRows } from '../ledger/queries'
import { customFields } from '../settings/queries'
import { bookLines } from '../pricebook/bookCsv'
import { contactCards, customerCsv, siteCsv } from '../customers/exports'
import { exportsByName } from '../subjects'
import { rowsFor } from './exports.queries'

/** The whole ledger; the postings of an entry follow each other. */
export async function* journal(ctx: Ctx): AsyncGenerator<string> {
  const { currency } = ctx.company
  yield writeJournalHead(
    Object.values(ACCOUNTS).map((a) => a.name),
    currency,
  )
  let id = 0
  let entry: JournalEntry | null = null
  for await (const row of journalRows(ctx.tx)) {
    if (row.id !== id) {
      if (entry) yield writeEntry(entry, currency)
      id = row.id
      entry = { on: row.on, code: row.kind, memo: row.memo, postings: [] }
    }
    entry!.postings.push({ account: accountName(row.account), amountMinor: row.amount })
  }
  if (entry) yield writeEntry(entry, currency)
}
/** A table, with the firm's own fields as further columns. */
export async function* table(ctx: Ctx, name: string): AsyncGenerator<string> {
  const what = exportsByName.get(name)!
  const fields = (await customFields(ctx.tx)).filter((f) => f.subject === what.fieldsOf)
  yield writeCsv([[...what.columns, ...fields.map((f) => f.name)]])
  const said = (column: string, value: string | number | null | undefined) =>
    what.money.has(column) ? minorToDecimal(Number(value), ctx.company.currency) : (value ?? null)
  for await (const row of rowsFor(ctx.tx, what)) {
    const own = (row.custom ?? {}) as Record<string, string>
    yield writeCsv([
      [...what.columns.map((c) => said(c, row[fieldOf(c)])), ...fields.map((f) => own[f.id] ?? '')],
    ])
  }
}
const ofTable =
  (name: string): Written =>
  (ctx) =>
    table(ctx, name)
/** Writes one export, piece by piece. */
export type Written = (ctx: Ctx) => AsyncIterable<string>
/** Every table that can be taken along as CSV, by what it is called in its address. */
export const csvExports: ReadonlyMap<string, Written> = new Map<string, Written>([
  ['customers', customerCsv],
  ['sites', siteCsv],
  ['price-book', bookLines],
  ...[...exportsByName.keys()].map((name): [string, Written] => [name, ofTable(name)]),
])
/** Everything that other programs read, and where it stands in an archive. */
export const openExports: readonly { path: string; write: Written }[] = [
  ...[...csvExports].map(([name, write]) => ({ path: `tables/${name}.csv`, write })),
  { path: 'tables/contacts.vcf', write: contactCards },
  { path: 'journal/journal.ledger', write: journal },
]
