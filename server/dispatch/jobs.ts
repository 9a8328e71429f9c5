// What the schedule does by itself: reminders of tomorrow's visits, and plans whose process is gone.
import { sqlInstant } from '../db/pool'
import type { JobKind } from '../jobs/jobs'
import { failDeadPlans } from './plans.queries'
import { remindTomorrow } from './visitMessages'
import { MINUTE, SECOND } from '../../core/time/units'

/** A plan that nobody was heard working on for so long is over. */
const PLAN_SILENCE_MS = 20 * SECOND

export const remindTomorrowJob: JobKind = {
  kind: 'remind-tomorrow',
  atOnce: 1,
  limitMs: MINUTE,
  tries: 1,
  waitMs: () => MINUTE,
  everyMs: 5 * MINUTE,
  run: async () => remindTomorrow,
}
export const sweepPlansJob: JobKind = {
  kind: 'sweep-plans',
  atOnce: 1,
  limitMs: 10 * SECOND,
  tries: 1,
  waitMs: () => 10 * SECOND,
  everyMs: 10 * SECOND,
  run: async () => async (ctx) => {
    await failDeadPlans(ctx.tx, sqlInstant(Date.now() - PLAN_SILENCE_MS))
  },
}
