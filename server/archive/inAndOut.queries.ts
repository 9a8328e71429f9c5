// SQL of what was taken in and along, and of what goes out by itself.
import { sqlInstant, type Tx } from '../db/pool'
import type { EVERY, EXPORTED, EXPORT_WAYS, TAKEN_IN } from '../../shared/archive'

export type Exported = (typeof EXPORTED)[number]
export interface Ran<What> {
  what: What
  at: string | null
  by: string
}
export const lastExports = (tx: Tx) =>
  tx.rows<Ran<Exported>>(
    `SELECT r.what, r.at, COALESCE(p.name, '') AS \`by\`
    FROM export_runs r
    LEFT JOIN people p ON p.id = r.person_id`,
  )
export const putExportRun = (tx: Tx, what: Exported, personId: string | null, at: number) =>
  tx.run(
    `INSERT INTO export_runs (what, at, person_id)
    VALUES (?, ?, ?)
    ON DUPLICATE KEY UPDATE at = VALUES(at), person_id = VALUES(person_id)`,
    [what, sqlInstant(at), personId],
  )
/** The last file of each kind that was taken in. */
export const lastImports = (tx: Tx) =>
  tx.rows<Ran<(typeof TAKEN_IN)[number]> & { file: string }>(
    `SELECT a.what, a.file, a.at, COALESCE(p.name, '') AS \`by\`
    FROM (
      SELECT what, file_name AS file, imported_at AS at, imported_by AS person_id FROM imports
      UNION ALL SELECT 'prices', file_name, made_at, made_by FROM price_imports WHERE state = 'taken'
      UNION ALL SELECT 'roads', name, imported_at, imported_by FROM road_networks
    ) a
    LEFT JOIN people p ON p.id = a.person_id
    ORDER BY a.at`,
  )

export interface ScheduleRow {
  id: string
  what: Exported
  every: (typeof EVERY)[number]
  way: (typeof EXPORT_WAYS)[number]
  email: string
  /** the first day, from which the others are counted */
  begunOn: string
  dueOn: string
  lastAt: string | null
  problem: string
  version: number
}
const SCHEDULE =
  'SELECT id, what, every, way, email, begun_on, due_on, last_at, problem, version FROM export_schedules'
export const exportSchedules = (tx: Tx) => tx.rows<ScheduleRow>(`${SCHEDULE} ORDER BY id`)
export const dueSchedules = (tx: Tx, today: string) =>
  tx.rows<ScheduleRow>(`${SCHEDULE} WHERE due_on <= ? ORDER BY due_on, id`, [today])
export const scheduleById = (tx: Tx, id: string, lock = false) =>
  tx.row<ScheduleRow>(`${SCHEDULE} WHERE id = ?${lock ? ' FOR UPDATE' : ''}`, [id])
export const insertSchedule = (
  tx: Tx,
  s: Pick<ScheduleRow, 'id' | 'what' | 'every' | 'way' | 'email' | 'begunOn'> & { madeBy: string },
) =>
  tx.run(
    'INSERT INTO export_schedules (id, what, every, way, email, begun_on, due_on, made_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [s.id, s.what, s.every, s.way, s.email, s.begunOn, s.begunOn, s.madeBy],
  )
export const deleteSchedule = (tx: Tx, id: string) =>
  tx.run('DELETE FROM export_schedules WHERE id = ?', [id])
/** How it went; what could not go out stays due, with what was in its way. */
export const wentOut = (
  tx: Tx,
  id: string,
  went: { dueOn: string; at: number } | { problem: string },
) =>
  'problem' in went
    ? tx.run('UPDATE export_schedules SET problem = ? WHERE id = ?', [
        went.problem.slice(0, 255),
        id,
      ])
    : tx.run("UPDATE export_schedules SET due_on = ?, last_at = ?, problem = '' WHERE id = ?", [
        went.dueOn,
        sqlInstant(went.at),
        id,
      ])
/** What did not go out, though it was due. */
export const stayed = async (tx: Tx): Promise<string[]> =>
  (await tx.rows<{ what: string }>("SELECT what FROM export_schedules WHERE problem <> ''")).map(
    ({ what }) => what,
  )
