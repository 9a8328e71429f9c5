// Housekeeping once an hour: answers kept for repeated requests, sessions that ended, failed sign-ins of yesterday.
import { sqlInstant, transaction } from '../db/pool'
import { sweepKeys } from './keys.queries'
import { sweepRequests } from '../calls/queries'
import { sweepSessions } from '../access/queries'

const DAY = 86_400_000
/** A phone that was without signal for a week may still repeat what it sent: its keys are kept for two. */
export const sweep = (now: number): Promise<void> => transaction(async (tx) => {
  await sweepKeys(tx, sqlInstant(now - 14 * DAY))
  await sweepRequests(tx, sqlInstant(now - 2 * DAY))
  await sweepSessions(tx, sqlInstant(now), sqlInstant(now - DAY))
})
