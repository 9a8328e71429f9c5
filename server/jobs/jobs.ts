// Work outside a request. An act puts a job in line in its own transaction; a worker claims it in a
// short one, does it in none, and notes what came of it in another. So nothing outside the building
// holds a lock, one slow peer delays nobody else, and what was claimed by a process that died is
// taken over when its time is up.
import { randomUUID } from 'node:crypto'
import { inBackground, type Tx } from '../db/pool'
import { inBackgroundContext, type Ctx } from '../http/context'
import { log } from '../http/log'
import {
  claimJobs,
  dueNow,
  holdOn,
  insertJob,
  isMine,
  jobAgain,
  jobDone,
  jobFailed,
  type JobRow,
} from './queries'
import { MINUTE, SECOND } from '../../core/time/units'

/** What is written when the work is done, in the transaction that ends the job. */
export type Outcome = ((ctx: Ctx) => Promise<void>) | undefined
export interface JobKind {
  kind: string
  /** how many at once in this process: a slow one holds up only its own kind */
  atOnce: number
  /** how many may have stepped aside at once */
  aside?: number
  /** how long one try may take; then it counts as failed, and its signal is given */
  limitMs: number
  /** how often it is tried; work that has to be done for ever is tried without end */
  tries: number
  /** how long to wait after a try that failed */
  waitMs(attempts: number): number
  /** done again and again, so long after it was done */
  everyMs?: number
  /** the work itself, in no transaction */
  run(job: Job, place: Place): Promise<Outcome>
  /** what is written when a try failed; `last` when it will not be tried again */
  failed?(ctx: Ctx, job: Job, error: Error, last: boolean): Promise<void>
}
export type Job = Pick<JobRow, 'payload' | 'attempts'>
/** The place at which a job is worked on. */
export interface Place {
  /** given when its time is up */
  signal: AbortSignal
  /** Only waits for the other side from here on: leaves its place to the next job, and has so long. */
  stepAside(forMs: number): void
}

/** Thrown by work that would fail again however often it were tried. */
export class Hopeless extends Error {}

/** 30 s, 1, 2, 4 min … and never more than an hour. */
export const doubling = (attempts: number): number =>
  Math.min(60 * MINUTE, 15 * SECOND * 2 ** attempts)

/** Puts a job in line as part of what this transaction does. */
export async function enqueue(
  tx: Tx,
  job: { kind: string; key: string; payload: object; runAt?: number },
): Promise<void> {
  const now = Date.now()
  await insertJob(tx, { runAt: now, ...job, now })
  tx.afterCommit(poke)
}

/** What is done now and then is done next, as part of what this transaction does. */
export async function hurry(tx: Tx, kind: string): Promise<void> {
  await dueNow(tx, kind, Date.now())
  tx.afterCommit(poke)
}

const worker = randomUUID()
/** So long a claim holds; a worker that lives says so much more often, and is never overtaken, however long its work takes. */
const CLAIM_MS = MINUTE
const POLL_MS = SECOND
const HOLD_EVERY_MS = 5 * SECOND
const TROUBLE_MS = 500

let kinds: readonly JobKind[] = []
const busy = new Map<string, Set<number>>()
const aside = new Set<number>()
/** When the database was last found to be away. What ran out meanwhile may be about to be noted. */
let awayAt = 0
const GRACE_MS = 5 * SECOND
let looking = false
let again = false
let stopped = true

/** Says that something may be due. */
export function poke(): void {
  if (stopped) return
  if (looking) {
    again = true
    return
  }
  looking = true
  void look()
    .catch((error) => {
      awayAt = Date.now()
      log.warn({ err: (error as Error).message }, 'jobs')
    })
    .finally(() => {
      looking = false
      if (again) {
        again = false
        poke()
      }
    })
}
async function look(): Promise<void> {
  for (const kind of kinds) {
    const running = busy.get(kind.kind)!
    const waiting = [...running].filter((id) => aside.has(id)).length
    const free = Math.min(
      kind.atOnce - running.size + waiting,
      kind.atOnce + (kind.aside ?? 0) - running.size,
    )
    if (free <= 0) continue
    const now = Date.now()
    const abandoned = now - awayAt > GRACE_MS ? now : 0
    const jobs = await inBackground((tx) =>
      claimJobs(
        tx,
        { kind: kind.kind, atOnce: free, abandoned, until: now + CLAIM_MS, except: [...running] },
        worker,
        now,
      ),
    )
    for (const job of jobs) {
      running.add(job.id)
      void work(kind, job).finally(() => {
        running.delete(job.id)
        aside.delete(job.id)
        poke()
      })
    }
  }
}
async function withinLimit(kind: JobKind, job: JobRow): Promise<Outcome> {
  const ending = new AbortController()
  let timer: NodeJS.Timeout | undefined
  const allow = (ms: number) => {
    clearTimeout(timer)
    timer = setTimeout(() => ending.abort(new Error(`no answer within ${ms / SECOND} s`)), ms)
  }
  const stepAside = (forMs: number) => {
    if (ending.signal.aborted) return
    aside.add(job.id)
    allow(forMs)
    poke()
  }
  allow(kind.limitMs)
  try {
    return await Promise.race([
      kind.run(job, { signal: ending.signal, stepAside }),
      new Promise<never>((_, fail) => {
        ending.signal.addEventListener('abort', () => fail(ending.signal.reason as Error), {
          once: true,
        })
      }),
    ])
  } finally {
    clearTimeout(timer)
  }
}
async function work(kind: JobKind, job: JobRow): Promise<void> {
  let outcome: Outcome
  let error: Error | null = null
  try {
    outcome = await withinLimit(kind, job)
  } catch (caught) {
    error = caught as Error
  }
  // What was done outside is done: it is noted for as long as this process lives, however long the database is away.
  for (;;) {
    try {
      await inBackgroundContext((ctx) => note(ctx, kind, job, { outcome, error }))
      return
    } catch (trouble) {
      if (stopped) return
      log.warn({ err: (trouble as Error).message, kind: kind.kind }, 'job outcome')
      await new Promise((done) => setTimeout(done, TROUBLE_MS))
    }
  }
}
/** How it went: what is noted with it, or why it failed. */
interface Ended {
  outcome: Outcome
  error: Error | null
}
async function note(
  ctx: Ctx,
  kind: JobKind,
  job: JobRow,
  { outcome, error }: Ended,
): Promise<void> {
  if (!(await isMine(ctx.tx, job.id, worker))) return
  const now = Date.now()
  if (!error) {
    await outcome?.(ctx)
    if (kind.everyMs) await jobAgain(ctx.tx, job.id, now + kind.everyMs)
    else await jobDone(ctx.tx, job.id, now)
    return
  }
  const last = !kind.everyMs && (error instanceof Hopeless || job.attempts >= kind.tries)
  await kind.failed?.(ctx, job, error, last)
  if (last) {
    log.error({ kind: kind.kind, job: job.id, err: error.message }, 'job given up')
    await jobFailed(ctx.tx, job.id, error.message, now)
  } else await jobAgain(ctx.tx, job.id, now + kind.waitMs(job.attempts), error.message)
}

/** Begins to work on these kinds; answers how to stop. What runs then is finished or taken over by others. */
export function startJobs(all: readonly JobKind[]): () => void {
  kinds = all
  for (const kind of all) busy.set(kind.kind, new Set())
  stopped = false
  const begin = () =>
    inBackground(async (tx) => {
      for (const kind of all.filter((k) => k.everyMs))
        await insertJob(tx, {
          kind: kind.kind,
          key: `every ${kind.kind}`,
          payload: {},
          runAt: Date.now(),
          now: Date.now(),
        })
    }).then(poke, () => {
      if (!stopped) setTimeout(begin, POLL_MS).unref()
    })
  void begin()
  const poll = setInterval(poke, POLL_MS)
  const hold = setInterval(() => {
    const ids = [...busy.values()].flatMap((running) => [...running])
    if (ids.length)
      void inBackground((tx) => holdOn(tx, ids, worker, Date.now() + CLAIM_MS)).catch(() => {})
  }, HOLD_EVERY_MS)
  return () => {
    stopped = true
    clearInterval(poll)
    clearInterval(hold)
  }
}
