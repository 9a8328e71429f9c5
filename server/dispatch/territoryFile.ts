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
import { territories } from '../settings/queries'
import { putTerritory } from './setUp.queries'

const MOST_ROWS = 50_000
/** Good rows are taken and bad ones named with their line; a dry run keeps nothing. The file's territories become what the file says of them, the others stay. */
export async function importTerritories(
  ctx: Ctx,
  body: Body<'importTerritories'>,
): Promise<Answer<'importTerritories'>> {
  const { head: names, rows } = table(body.data)
  const head = names.map((h) => h.toLowerCase())
  const [name, code] = [
    head.findIndex((h) => /territor|area|region/.test(h)),
    head.findIndex((h) => /post|zip|code/.test(h)),
  ]
  if (name < 0 || code < 0 || name === code)
    throw invalid('data', 'The first row names the columns: “territory” and “postcode”.')
  if (rows.length > MOST_ROWS) throw invalid('data', `Not more than ${MOST_ROWS} rows at a time.`)
  const errors: { line: number; message: string }[] = []
  const wanted = new Map<string, Set<string>>()
  for (const [i, row] of rows.entries()) {
    const [area, codes] = [row[name]!, row[code]!]
    try {
      if (!area || area.length > 80)
        throw new LedgerError(
          'bad_row',
          area ? 'The name is longer than 80 signs.' : 'The territory has no name.',
        )
      const list = postcodeRange(codes)
      if (!list.length) throw new LedgerError('bad_row', 'The postcode is missing.')
      wanted.set(area, new Set([...(wanted.get(area) ?? []), ...list]))
    } catch (error) {
      errors.push({ line: i + 2, message: (error as Error).message })
    }
  }
  const known = new Map((await territories(ctx.tx)).map((t) => [t.name, t]))
  const result = [...wanted].map(([area, codes]) => {
    const old = new Set(known.get(area)?.postcodes ?? [])
    return {
      name: area,
      postcodes: codes.size,
      added: [...codes].filter((c) => !old.has(c)).length,
      dropped: [...old].filter((c) => !codes.has(c)).length,
    }
  })
  if (!body.dryRun) {
    for (const [area, codes] of wanted)
      await putTerritory(ctx.tx, {
        id: known.get(area)?.id ?? ctx.id(),
        name: area,
        postcodes: [...codes].sort(),
      })
    await record(ctx, {
      subject: 'settings',
      id: ctx.id(),
      fact: scheduleFacts.territoriesImported({
        territories: result.map(({ name, postcodes }) => ({ name, postcodes })),
      }),
    })
  }
  return { territories: result, errors: errors.slice(0, 200), kept: !body.dryRun }
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
