// The numbers that people say: each series as the firm has it, its counter in the database.
import {
  NUMBER_KINDS,
  numberIn,
  serialIn,
  seriesProblem,
  type NumberKind,
} from '../../core/documents/numberSeries'
import { conflict, invalid } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'
import {
  allSeries,
  lockSeries,
  numbersBeginning,
  putSeries,
  type SeriesRow,
} from './numbers.queries'

const yearOf = ({ today }: Ctx): number => Number(today.slice(0, 4))
/** A series as it stands today: one that begins with each year may have to begin. */
function asOf(row: SeriesRow, year: number): SeriesRow {
  const begins = row.yearly && row.year !== 0 && year > row.year
  return begins ? { ...row, next: 1, year, run: row.run + 1 } : { ...row, year }
}
/** The next number of a kind, with its place in its run; the series stays locked until the commit. */
export async function nextNumber(
  ctx: Ctx,
  kind: NumberKind,
): Promise<{ number: string; run: number; serial: number }> {
  const now = asOf(await lockSeries(ctx.tx, kind), yearOf(ctx))
  await putSeries(ctx.tx, { ...now, next: now.next + 1 })
  return { number: numberIn(now, now.next, now.year), run: now.run, serial: now.next }
}
export async function numbers(ctx: Ctx): Promise<Answer<'numbers'>> {
  const rows = await allSeries(ctx.tx)
  const year = yearOf(ctx)
  const items = NUMBER_KINDS.map((kind) =>
    asOf(
      rows.find((row) => row.kind === kind)!,
      year,
    ),
  )
  return {
    items: items.map(({ kind, prefix, width, yearly, next, run }) => ({
      ...{ kind, prefix, width, yearly, next, version: run },
      example: numberIn({ prefix, width, yearly }, next, year),
    })),
  }
}
/** A series goes on otherwise: where another program stopped, or in another form. No number is given twice. */
export async function keepNumbers(
  ctx: Ctx,
  { kind, version, next, ...series }: Body<'keepNumbers'>,
): Promise<Answer<'numbers'>> {
  const year = yearOf(ctx)
  // Nobody brings numbers along meanwhile.
  await lockFirm(ctx.tx)
  const was = asOf(await lockSeries(ctx.tx, kind), year)
  if (was.run !== version)
    throw conflict('stale', 'Someone changed these numbers in the meantime. Look at them again.', {
      current: await numbers(ctx),
    })
  const problem = seriesProblem(series)
  if (problem) throw invalid(problem.field, problem.message)
  const given = await numbersBeginning(ctx.tx, kind, series.prefix.split('{year}')[0]!)
  const last = Math.max(0, ...given.map((number) => serialIn(series, number, year) ?? 0))
  if (next <= last)
    throw invalid(
      'next',
      `${numberIn(series, last, year)} was given already: the next is ${last + 1} at least.`,
    )
  await putSeries(ctx.tx, { kind, ...series, next, year, run: was.run + 1 })
  const told = (row: Pick<SeriesRow, 'prefix' | 'width' | 'yearly' | 'next'>) =>
    numberIn(row, row.next, year)
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.numbersKept({
      kind,
      changes: { next: { from: told(was), to: told({ ...series, next }) } },
    }),
  })
  return numbers(ctx)
}
