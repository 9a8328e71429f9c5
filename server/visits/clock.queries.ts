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
}
export const toInterval = (r: {
  id: string
  visitId: string | null
  personId: string
  person: string
  personKind: string
  kind: ClockInterval['kind']
  startedAt: string
  endedAt: string | null
}): IntervalRow => ({
  ...r,
  startedAt: Date.parse(r.startedAt),
  endedAt: r.endedAt ? Date.parse(r.endedAt) : null,
})
export type RawInterval = Parameters<typeof toInterval>[0]
export const clockIn = (where: string, values: Value[]): ListIn => ({
  columns:
    'k.id, k.visit_id, k.person_id, p.name AS person, p.kind AS personKind, k.kind, k.started_at, k.ended_at',
  from: `clock_intervals k JOIN people p ON p.id = k.person_id WHERE ${where}`,
  values,
  order: 'k.started_at',
  instants: ['startedAt', 'endedAt'],
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
