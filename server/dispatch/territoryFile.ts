// Territories in and out as CSV: a territory and a postcode, a beginning or a range in each row.
import { scheduleFacts } from './facts'
import { postcodeRange } from '../../core/customers/postcodeRange'
import { invalid, LedgerError } from '../../core/errors/LedgerError'
import { writeCsv } from '../../core/formats/csv'
import { readCsv } from '../../core/formats/readCsv'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { Raw } from '../http/route'
import { record } from '../http/queries'
import { lockFirm } from '../settings/index'
import { territories } from '../settings/queries'
import { putTerritory } from './setUp.queries'

const MOST_ROWS = 50_000
type Taken = Answer<'importTerritories'>
/** In which columns the territory and its postcode stand; they may be called by several names. */
function columnsIn(head: readonly string[]): { name: number; code: number } {
  const named = (pattern: RegExp) => head.findIndex((h) => pattern.test(h.toLowerCase()))
  const [name, code] = [named(/territor|area|region/), named(/post|zip|code/)]
  if (name < 0 || code < 0 || name === code)
    throw invalid('data', 'The first row names the columns: “territory” and “postcode”.')
  return { name, code }
}
/** The postcodes that a row gives its territory. */
function readRow(area: string, codes: string): string[] {
  if (!area) throw new LedgerError('bad_row', 'The territory has no name.')
  if (area.length > 80) throw new LedgerError('bad_row', 'The name is longer than 80 signs.')
  const list = postcodeRange(codes)
  if (!list.length) throw new LedgerError('bad_row', 'The postcode is missing.')
  return list
}
/** Postcodes by territory, and the rows that say none, with their lines. */
function readRows({ head, rows }: ReturnType<typeof readCsv>) {
  const { name, code } = columnsIn(head)
  if (rows.length > MOST_ROWS) throw invalid('data', `Not more than ${MOST_ROWS} rows at a time.`)
  const errors: Taken['errors'] = []
  const wanted = new Map<string, Set<string>>()
  for (const [i, row] of rows.entries()) {
    const area = row[name]!
    try {
      wanted.set(area, new Set([...(wanted.get(area) ?? []), ...readRow(area, row[code]!)]))
    } catch (error) {
      errors.push({ line: i + 2, message: (error as Error).message })
    }
  }
  return { wanted, errors }
}
/** Good rows are taken and bad ones named with their line; a dry run keeps nothing. The file's territories become what the file says of them, the others stay. */
export async function importTerritories(
  ctx: Ctx,
  { data, dryRun }: Body<'importTerritories'>,
): Promise<Taken> {
  const { wanted, errors } = readRows(table(data))
  // What stands there stays as it is compared until this is done.
  if (!dryRun) await lockFirm(ctx.tx)
  const known = new Map((await territories(ctx.tx)).map((t) => [t.name, t]))
  const result = [...wanted].map(([name, codes]) => {
    const old = new Set(known.get(name)?.postcodes ?? [])
    const added = [...codes].filter((c) => !old.has(c)).length
    const dropped = [...old].filter((c) => !codes.has(c)).length
    return { name, postcodes: codes.size, added, dropped }
  })
  if (!dryRun) {
    for (const [name, codes] of wanted) {
      const id = known.get(name)?.id ?? ctx.id()
      await putTerritory(ctx.tx, { id, name, postcodes: [...codes].sort() })
    }
    const said = result.map(({ name, postcodes }) => ({ name, postcodes }))
    const fact = scheduleFacts.territoriesImported({ territories: said })
    await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  }
  return { territories: result, errors: errors.slice(0, 200), kept: !dryRun }
}
function table(data: string): ReturnType<typeof readCsv> {
  try {
    return readCsv(data)
  } catch (error) {
    throw invalid('data', (error as Error).message)
  }
}
export const exportTerritories = async (ctx: Ctx): Promise<Raw> =>
  new Raw(
    'text/csv; charset=utf-8',
    writeCsv([
      ['territory', 'postcode'],
      ...(await territories(ctx.tx)).flatMap((t) => t.postcodes.map((p) => [t.name, p])),
    ]),
    'territories.csv',
  )
