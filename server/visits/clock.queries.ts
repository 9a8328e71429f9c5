// SQL of the clock: whose runs since when, and what was clocked.
import { placeholders, sqlInstant, type Tx, type Value } from '../db/pool'
import { listOf, type ListIn } from '../db/queries'
import type { ClockInterval } from '../../core/hours/workedSeconds'

export type IntervalRow = ClockInterval & {
  id: string
  visitId: string | null
  personId: string
  person: string
  personKind: string
  /** what an hour of theirs costs, in major units */
  costRate: string
}
export const toInterval = (r: {
  id: string
  visitId: string | null
  personId: string
  person: string
  personKind: string
  costRate: string
  kind: ClockInterval['kind']
  startedAt: string
  endedAt: string | null
}): IntervalRow => ({
  ...r,
  startedAt: Date.parse(r.startedAt),
  endedAt: r.endedAt ? Date.parse(r.endedAt) : null,
})
export type RawInterval = Parameters<typeof toInterval>[0]
/** What an hour of the person `k` costs as it begins; nothing where nobody said. */
export const COST_RATE = `COALESCE((SELECT h.rate FROM cost_rates h WHERE h.person_id = k.person_id
  AND h.starts_at <= k.started_at ORDER BY h.starts_at DESC LIMIT 1), 0)`
export const clockIn = (where: string, values: Value[]): ListIn => ({
  columns: `k.id, k.visit_id, k.person_id, p.name AS person, p.kind AS personKind,
    ${COST_RATE} AS costRate, k.kind, k.started_at, k.ended_at`,
  from: `clock_intervals k JOIN people p ON p.id = k.person_id WHERE ${where}`,
  values,
  order: 'k.started_at',
  instants: ['startedAt', 'endedAt'],
  decimals: ['costRate'],
})
export const intervalsOf = async (tx: Tx, visitIds: string[]) =>
  (
    await listOf<RawInterval>(tx, clockIn(`k.visit_id IN (${placeholders(visitIds)})`, visitIds))
  ).map(toInterval)
export const runningClock = async (tx: Tx, personId: string) => {
  const r = await tx.row<{ id: string; visitId: string | null; startedAt: string }>(
    'SELECT id, visit_id, started_at FROM clock_intervals WHERE running_for = ? FOR UPDATE',
    [personId],
  )
  return r && { ...r, startedAt: Date.parse(r.startedAt) }
}
/** When the last stretch of a person's time that is over ended; 0 where there is none. */
export const lastClocked = async (tx: Tx, personId: string): Promise<number> => {
  const r = await tx.row<{ last: string | null }>(
    'SELECT MAX(ended_at) AS last FROM clock_intervals WHERE person_id = ?',
    [personId],
  )
  return r?.last ? Date.parse(r.last) : 0
}
/** Clocks that run on a visit for others than the one whose visit it is. */
export const helpersRunning = (tx: Tx, visitId: string, leadId: string | null) =>
  tx.rows<{ id: string; personId: string }>(
    `SELECT id, person_id
    FROM clock_intervals
    WHERE visit_id = ? AND ended_at IS NULL AND NOT (person_id <=> ?) FOR UPDATE`,
    [visitId, leadId],
  )
export const startClock = (
  tx: Tx,
  {
    id,
    personId,
    visitId,
    kind,
    at,
  }: { id: string; personId: string; visitId: string; kind: string; at: number },
) =>
  tx.run(
    'INSERT INTO clock_intervals (id, person_id, visit_id, kind, started_at) VALUES (?, ?, ?, ?, ?)',
    [id, personId, visitId, kind, sqlInstant(at)],
  )
export const stopClock = (tx: Tx, id: string, at: number) =>
  tx.run('UPDATE clock_intervals SET ended_at = GREATEST(started_at, ?) WHERE id = ?', [
    sqlInstant(at),
    id,
  ])
export const intervalById = async (tx: Tx, id: string): Promise<IntervalRow | null> =>
  (await listOf<RawInterval>(tx, clockIn('k.id = ?', [id]))).map(toInterval)[0] ?? null
/** What a person was clocked around a stretch of time, whatever it was for. */
export const intervalsOfPerson = async (
  tx: Tx,
  personId: string,
  { startedAt, endedAt }: { startedAt: number; endedAt: number | null },
) =>
  (
    await listOf<RawInterval>(
      tx,
      clockIn(
        'k.person_id = ? AND k.started_at < COALESCE(?, k.started_at + INTERVAL 1 SECOND) AND (k.ended_at IS NULL OR k.ended_at > ?)',
        [personId, endedAt === null ? null : sqlInstant(endedAt), sqlInstant(startedAt)],
      ),
    )
  ).map(toInterval)
type Kept = Pick<ClockInterval, 'kind' | 'startedAt' | 'endedAt'>
const at = (ms: number | null) => (ms === null ? null : sqlInstant(ms))
export const insertInterval = (
  tx: Tx,
  {
    id,
    personId,
    visitId,
    kind,
    startedAt,
    endedAt,
  }: Kept & { id: string; personId: string; visitId: string },
) =>
  tx.run(
    `INSERT INTO clock_intervals (id, person_id, visit_id, kind, started_at, ended_at)
    VALUES (?, ?, ?, ?, ?, ?)`,
    [id, personId, visitId, kind, at(startedAt), at(endedAt)],
  )
export const changeInterval = (tx: Tx, id: string, { kind, startedAt, endedAt }: Kept) =>
  tx.run('UPDATE clock_intervals SET kind = ?, started_at = ?, ended_at = ? WHERE id = ?', [
    kind,
    at(startedAt),
    at(endedAt),
    id,
  ])
export const removeInterval = (tx: Tx, id: string) =>
  tx.run('DELETE FROM clock_intervals WHERE id = ?', [id])
