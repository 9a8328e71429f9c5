// Housekeeping once an hour: what is kept only for a while.
import { sweepDoors } from '../access/doors.queries'
import { sweepSessions } from '../access/queries'
import { sweepLooks } from '../customers/imports.queries'
import { sweepForms, sweepRequests } from '../calls/queries'
import { sqlInstant, type Tx } from '../db/pool'
import { sweepEvents } from '../events/queries'
import type { JobKind } from '../jobs/jobs'
import { sweepJobs } from '../jobs/queries'
import { sweepProgress } from '../jobs/progress.queries'
import { sweepKeys } from './keys.queries'
import { sweepTries } from './limits.queries'
import { DAY, HOUR, MINUTE } from '../../core/time/units'

/** A phone that was without signal for a week may still repeat what it sent: its keys are kept for two. */
export async function sweep(tx: Tx, now: number): Promise<void> {
  const before = (ms: number) => sqlInstant(now - ms)
  await sweepKeys(tx, before(14 * DAY))
  await sweepJobs(tx, before(14 * DAY))
  await sweepRequests(tx, before(2 * DAY))
  await sweepTries(tx, before(2 * DAY))
  await sweepEvents(tx, before(DAY))
  await sweepProgress(tx, before(DAY))
  await sweepForms(tx, before(HOUR))
  await sweepLooks(tx, before(DAY))
  await sweepSessions(tx, sqlInstant(now))
  await sweepDoors(tx, sqlInstant(now))
}
export const sweepJob: JobKind = {
  kind: 'sweep',
  atOnce: 1,
  limitMs: MINUTE,
  tries: 1,
  waitMs: () => MINUTE,
  everyMs: HOUR,
  run: async () => (ctx) => sweep(ctx.tx, Date.now()),
}
