// Work that goes on beside requests: jobs, what other processes tell of, and the index that finds callers.
import { warmMatching } from '../customers/matching'
import { closePool } from '../db/pool'
import { followEvents } from '../events/events'
import { log } from '../http/log'
import { ALL_JOBS } from '../jobs/all'
import { startJobs } from '../jobs/jobs'

export default defineNitroPlugin((nitro) => {
  const stopFollowing = followEvents()
  const stopJobs = startJobs(ALL_JOBS)
  // The first question builds it where this fails.
  void warmMatching().catch((error) => log.warn({ err: (error as Error).message }, 'index'))
  nitro.hooks.hook('close', async () => {
    stopFollowing()
    stopJobs()
    await closePool()
  })
})
