// SQL of plans for days: asked for, worked out, accepted.
import { sqlInstant, type Tx } from '../db/pool'
import type { Answer, Body } from '../../shared/api'

/** What is asked of a plan, and what it proposes: kept as JSON. */
export type Wish = Omit<Body<'beginPlan'>, 'id'>
export type Proposal = Pick<Answer<'dayPlan'>, 'before' | 'after' | 'changes'>
export interface DayPlanRow {
  id: string
  state: 'running' | 'ready' | 'accepted' | 'stopped' | 'failed'
  wish: Wish
  progress: string
  result: Proposal | null
  problem: string
  askedBy: string
  askedAt: string
}
export const dayPlanById = (tx: Tx, id: string, lock = false) =>
  tx.row<DayPlanRow>(
    `SELECT id, state, wish, progress, result, problem, asked_by, asked_at
    FROM day_plans
    WHERE id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
export const insertDayPlan = (tx: Tx, p: { id: string; wish: object; by: string; at: number }) =>
  tx.run(
    'INSERT INTO day_plans (id, state, wish, asked_by, asked_at, alive_at) VALUES (?, "running", ?, ?, ?, ?)',
    [p.id, JSON.stringify(p.wish), p.by, sqlInstant(p.at), sqlInstant(Date.now())],
  )
export const setPlanProgress = (tx: Tx, id: string, progress: number) =>
  tx.run('UPDATE day_plans SET progress = ? WHERE id = ? AND state = "running"', [
    progress.toFixed(4),
    id,
  ])
export const setPlanState = (
  tx: Tx,
  id: string,
  state: DayPlanRow['state'],
  values: { result?: object; problem?: string },
) =>
  tx.run(
    'UPDATE day_plans SET state = ?, result = COALESCE(?, result), problem = ?, progress = 1 WHERE id = ?',
    [
      state,
      values.result ? JSON.stringify(values.result) : null,
      (values.problem ?? '').slice(0, 200),
      id,
    ],
  )
/** Plans that nobody works on any more: their process is gone. */
export const failDeadPlans = (tx: Tx, silentSince: string) =>
  tx.run(
    `UPDATE day_plans
    SET state = "failed",
      problem = "The server was restarted while it planned. Nothing was changed; ask again."
    WHERE state = "running" AND (alive_at IS NULL OR alive_at < ?)`,
    [silentSince],
  )
/** Says that a plan is worked on, and learns whether somebody wants it stopped, in whichever process. */
export const keepPlanAlive = async (tx: Tx, id: string, at: number): Promise<boolean> => {
  await tx.run('UPDATE day_plans SET alive_at = ? WHERE id = ? AND state = "running"', [
    sqlInstant(at),
    id,
  ])
  return Boolean(
    (
      await tx.row<{ wanted: boolean }>(
        'SELECT stop_wanted AS wanted FROM day_plans WHERE id = ?',
        [id],
      )
    )?.wanted,
  )
}
export const wantPlanStopped = (tx: Tx, id: string) =>
  tx.run('UPDATE day_plans SET stop_wanted = TRUE WHERE id = ? AND state = "running"', [id])
export const plansRunningFor = async (tx: Tx, personId: string) =>
  (await tx.row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM day_plans WHERE state = "running" AND asked_by = ?',
    [personId],
  ))!.n
