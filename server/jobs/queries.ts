// SQL of the jobs: what is done outside a request, or outside the building.
import { placeholders, sqlInstant, type Tx, type Value } from '../db/pool'

export interface JobRow {
  id: number
  kind: string
  payload: Record<string, unknown>
  attempts: number
}

/** Puts a job in line. A key makes it one: while such a job waits or runs, another is not made. */
export const insertJob = async (
  tx: Tx,
  job: { kind: string; key: string; payload: object; runAt: number; now: number },
): Promise<boolean> =>
  (
    await tx.run(
      'INSERT IGNORE INTO jobs (kind, job_key, payload, run_at, created_at) VALUES (?, ?, ?, ?, ?)',
      [job.kind, job.key, JSON.stringify(job.payload), sqlInstant(job.runAt), sqlInstant(job.now)],
    )
  ).affected === 1

/** What is done again and again is due at once, where it does not run already. */
export const dueNow = (tx: Tx, kind: string, now: number) =>
  tx.run("UPDATE jobs SET run_at = ? WHERE job_key = ? AND state = 'waiting'", [
    sqlInstant(now),
    `every ${kind}`,
  ])

interface Claim {
  kind: string
  atOnce: number
  until: number
  /** what was claimed until before this is taken over */
  abandoned: number
  /** what this very process is at: the database was away, and its claims ran out */
  except: number[]
}
/** Takes jobs that are due, and those whose worker did not come back; each is taken by one worker only. */
export async function claimJobs(
  tx: Tx,
  claim: Claim,
  worker: string,
  now: number,
): Promise<JobRow[]> {
  const rows = await tx.rows<JobRow>(
    `SELECT id, kind, payload, attempts
    FROM jobs
    WHERE kind = ? AND ((state = 'waiting' AND run_at <= ?) OR (state = 'running' AND claimed_until
      < ?)) AND id NOT IN (${claim.except.length ? placeholders(claim.except) : '0'})
    ORDER BY run_at, id LIMIT ? FOR UPDATE SKIP LOCKED`,
    [
      claim.kind,
      sqlInstant(now),
      sqlInstant(claim.abandoned),
      ...claim.except,
      String(claim.atOnce),
    ],
  )
  if (rows.length) {
    await tx.run(
      `UPDATE jobs
      SET state = 'running', attempts = attempts + 1, claimed_by = ?, claimed_until = ?
      WHERE id IN (${placeholders(rows)})`,
      [worker, sqlInstant(claim.until), ...rows.map((r) => r.id)],
    )
  }
  return rows.map((r) => ({
    ...r,
    payload: r.payload,
    attempts: r.attempts + 1,
  }))
}
/** Whether the job is still this worker's: one that came too late finds it taken over. */
export const isMine = async (tx: Tx, id: number, worker: string): Promise<boolean> =>
  (await tx.row(
    `SELECT 1 AS yes FROM jobs WHERE id = ? AND state = 'running' AND claimed_by = ? FOR UPDATE`,
    [id, worker],
  )) !== null
/** A key is free again when its job is over. */
const over = (tx: Tx, id: number, now: number, error?: string) =>
  tx.run(
    `UPDATE jobs
    SET state = ?, job_key = NULL, error = ?, ended_at = ?, claimed_by = NULL, claimed_until = NULL
    WHERE id = ?`,
    [error === undefined ? 'done' : 'failed', (error ?? '').slice(0, 255), sqlInstant(now), id],
  )
export const jobDone = (tx: Tx, id: number, now: number) => over(tx, id, now)
export const jobFailed = (tx: Tx, id: number, error: string, now: number) =>
  over(tx, id, now, error)
/** To be done again then. After an error the attempts count on; where it went well, they begin anew. */
export const jobAgain = (tx: Tx, id: number, runAt: number, error: string | null = null) =>
  tx.run(
    `UPDATE jobs
    SET state = 'waiting', run_at = ?, error = ?, attempts = COALESCE(?, attempts),
      claimed_by = NULL, claimed_until = NULL
    WHERE id = ?`,
    [sqlInstant(runAt), (error ?? '').slice(0, 255), error === null ? 0 : null, id],
  )
/** A worker that lives says so for what it holds. */
export const holdOn = (tx: Tx, ids: readonly number[], worker: string, until: number) =>
  tx.run(
    `UPDATE jobs SET claimed_until = ? WHERE claimed_by = ? AND id IN (${placeholders(ids)})`,
    [sqlInstant(until), worker, ...ids] as Value[],
  )
export const sweepJobs = (tx: Tx, before: string) =>
  tx.run(`DELETE FROM jobs WHERE state IN ('done', 'failed') AND ended_at < ? LIMIT 20000`, [
    before,
  ])
/** How many jobs there are of each kind and state, and for how long the oldest that is due has waited. */
export const jobCounts = (tx: Tx, now: number) =>
  tx.rows<{ kind: string; state: string; count: number; lateSeconds: number }>(
    `SELECT kind, state, COUNT(*) AS count,
      CAST(IF(state = 'waiting', GREATEST(0, TIMESTAMPDIFF(SECOND, MIN(run_at), ?)), 0) AS SIGNED) AS lateSeconds
    FROM jobs
    WHERE state <> 'done'
    GROUP BY kind, state`,
    [sqlInstant(now)],
  )
