// SQL of the series of numbers that people say.
import type { NumberKind, NumberSeries } from '../../core/documents/numberSeries'
import type { Tx } from '../db/pool'

export interface SeriesRow extends NumberSeries {
  kind: NumberKind
  next: number
  /** of the numbers that it gave last; 0 before it gave any */
  year: number
  /** a change of the series begins another */
  run: number
}
const SERIES = 'SELECT kind, next_value AS next, prefix, width, yearly, year, run FROM counters'
const rowOf = (row: SeriesRow): SeriesRow => ({ ...row, yearly: Boolean(row.yearly) })
/** The row stays locked until the commit, so that numbers have no gaps. */
export const lockSeries = async (tx: Tx, kind: NumberKind) =>
  rowOf((await tx.row<SeriesRow>(`${SERIES} WHERE kind = ? FOR UPDATE`, [kind]))!)
export const allSeries = async (tx: Tx) => (await tx.rows<SeriesRow>(SERIES)).map(rowOf)
export const putSeries = (tx: Tx, s: SeriesRow) =>
  tx.run(
    `UPDATE counters
    SET next_value = ?, prefix = ?, width = ?, yearly = ?, year = ?, run = ?
    WHERE kind = ?`,
    [s.next, s.prefix, s.width, s.yearly, s.year, s.run, s.kind],
  )
const TABLE: Readonly<Record<NumberKind, string>> = {
  invoice: 'invoices',
  quote: 'quotes',
  work_order: 'work_orders',
  receipt: 'payments',
}
/** The numbers that were given and begin so. */
export const numbersBeginning = async (tx: Tx, kind: NumberKind, begins: string) =>
  (
    await tx.rows<{ number: string }>(
      `SELECT number FROM ${TABLE[kind]} WHERE LEFT(number, CHAR_LENGTH(?)) = ?`,
      [begins, begins],
    )
  ).map(({ number }) => number)
