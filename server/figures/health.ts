// Whether the service and its database answer, and whether what it does by itself gets done.
import { statfs } from 'node:fs/promises'
import { setResponseStatus, type H3Event } from 'h3'
import { MINUTE, SECOND } from '../../core/time/units'
import type { Answer } from '../../shared/api'
import { stayed } from '../archive/inAndOut.queries'
import { config } from '../config'
import { databaseAnswers, inBackground } from '../db/pool'
import { jobCounts } from '../jobs/queries'
import { VERSION } from './version'

const WITHIN_MS = 2_000
/** What is due is begun within a second; after so long, nobody is at it. */
const LATE_MS = 5 * MINUTE
/** With less of the disk free, the database may soon have none. */
const LEAST_FREE = 0.05

async function isDiskFull(): Promise<boolean> {
  const disk = await statfs(config.exportFolder || '.').catch(() => statfs('.'))
  return disk.bavail / disk.blocks < LEAST_FREE
}
/** What is not as it should be, though everything answers. */
async function look(): Promise<string[]> {
  const [{ counts, stays }, isFull] = await Promise.all([
    inBackground(async (tx) => ({
      counts: await jobCounts(tx, Date.now()),
      stays: await stayed(tx),
    })),
    isDiskFull(),
  ])
  const late = counts.filter(({ lateSeconds }) => lateSeconds * SECOND > LATE_MS)
  return [
    ...late.map(({ kind }) => `work of the kind “${kind}” is not being done`),
    ...stays.map((what) => `${what} does not go out by itself`),
    ...(isFull ? ['less than 5 % of the disk is free'] : []),
  ]
}
const LOOK_EVERY_MS = 5 * SECOND
let complaints: string[] = []
let lookedAt = -Infinity
/** What was found last. It is looked at beside the answers, which never wait for it. */
function lastComplaints(): string[] {
  if (performance.now() - lookedAt > LOOK_EVERY_MS) {
    lookedAt = performance.now()
    void look().then(
      (found) => void (complaints = found),
      () => void (complaints = ['the database answers slowly']),
    )
  }
  return complaints
}
export async function health(event: H3Event): Promise<Answer<'health'>> {
  const version = VERSION
  if (!(await databaseAnswers(WITHIN_MS))) {
    setResponseStatus(event, 503)
    return { status: 'failing', db: 'does not answer', version, why: [] }
  }
  const why = lastComplaints()
  return { status: why.length ? 'degraded' : 'ok', db: 'ok', version, why }
}
