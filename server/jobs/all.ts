// Every kind of job, from the subjects that own them.
import { tokenEndsJob } from '../access/tokenEnds'
import { exportsJob } from '../archive/schedules'
import { remindTomorrowJob, sweepPlansJob } from '../dispatch/jobs'
import { sweepJob } from '../http/sweep'
import { deliver } from '../messages/jobs'
import { lookAtCharge, refundCharge } from '../payments/jobs'
import { restateJob } from '../visits/jobs'
import type { JobKind } from './jobs'

export const ALL_JOBS: readonly JobKind[] = [
  deliver,
  lookAtCharge,
  refundCharge,
  remindTomorrowJob,
  sweepPlansJob,
  sweepJob,
  restateJob,
  exportsJob,
  tokenEndsJob,
]
