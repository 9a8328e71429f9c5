// SQL of what waits, of whatever kind: how much there is in a place, what it is, and everything that could wait.
import type { Place } from '../../core/waiting/whereItStands'
import type { Tx } from '../db/pool'
import { inThousands } from '../db/queries'
import type { Waiting, Waits, WaitsAt } from '../subject'

/** A kind of things in one of its places. */
export interface Spot {
  of: Waits
  place: Place
}
const conditionOf = ({ of, place }: Spot, at: WaitsAt) => of.places(at)[place]!
export interface Counted {
  count: number
  sum: number
}
/** How many things there are in each of these, and what they come to, in one question. */
export async function countsIn(tx: Tx, spots: readonly Spot[], at: WaitsAt): Promise<Counted[]> {
  const parts = spots.map((spot) => {
    const [where, ...values] = conditionOf(spot, at)
    const { sum = '0', from } = spot.of
    const sql = `SELECT COUNT(*) AS count, CAST(COALESCE(SUM(${sum}), 0) AS SIGNED) AS sum
      FROM ${from} WHERE ${where}`
    return { sql, values }
  })
  return tx.rows<Counted>(
    parts.map(({ sql }) => sql).join(' UNION ALL '),
    parts.flatMap(({ values }) => values),
  )
}
/** What is computed comes as a number; the rows are this question's own, and there may be very many. */
const readBy = ({ booleans = [] }: Waits) =>
  function read(row: Waiting): Waiting {
    const facts = row as unknown as Record<string, unknown>
    for (const name of booleans) facts[name] = Boolean(facts[name])
    return row
  }
const selectOf = ({ id, columns, from, joins }: Waits) =>
  `SELECT STRAIGHT_JOIN ${id} AS id, ${columns} FROM ${from} ${joins}`
/** The things in one place, the oldest first: identifiers are made in order of time. */
export const thingsIn = async (tx: Tx, spot: Spot, at: WaitsAt, limit: number) => {
  const [where, ...values] = conditionOf(spot, at)
  const { of } = spot
  const rows = await tx.rows<Waiting>(
    `${selectOf(of)} WHERE ${where} ORDER BY ${of.id} LIMIT ${limit}`,
    values,
  )
  return rows.map(readBy(of))
}
/** Everything of a kind, wherever it stands. */
export function allOf(tx: Tx, of: Waits): AsyncGenerator<Waiting[]> {
  const read = readBy(of)
  return inThousands(async (after, limit) => {
    const sql = `${selectOf(of)} WHERE ${of.id} > ? ORDER BY ${of.id} LIMIT ${limit}`
    return (await tx.rows<Waiting>(sql, [after])).map(read)
  })
}
/** What a place shows of a kind. */
export async function idsIn(tx: Tx, spot: Spot, at: WaitsAt): Promise<Set<string>> {
  const [where, ...values] = conditionOf(spot, at)
  const { of } = spot
  const rows = await tx.rows<{ id: string }>(
    `SELECT ${of.id} AS id FROM ${of.from} WHERE ${where}`,
    values,
  )
  return new Set(rows.map(({ id }) => id))
}
