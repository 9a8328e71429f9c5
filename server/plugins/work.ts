// Work that goes on beside requests: jobs, what other processes tell of, and the index that finds callers.
import { warmMatching } from '../customers/matching'
import { followConnections } from '../connections/kept'
import { closePool } from '../db/pool'
import { followEvents } from '../events/events'
import { log } from '../http/log'
import { ALL_JOBS } from '../jobs/all'
import { startJobs } from '../jobs/jobs'
import { configProblems } from '../config'

export default defineNitroPlugin((nitro) => {
  const problems = configProblems()
  if (problems.length) {
    process.stderr.write(`Open Ledger cannot start:\n${problems.join('\n')}\n`)
    process.exit(1)
  }
  const stopFollowing = followEvents()
  const stopConnections = followConnections()
  const stopJobs = startJobs(ALL_JOBS)
  // The first question builds it where this fails.
  void warmMatching().catch((error) => log.warn({ err: (error as Error).message }, 'index'))
  nitro.hooks.hook('close', async () => {
    stopFollowing()
    stopConnections()
    stopJobs()
    await closePool()
  })
})
