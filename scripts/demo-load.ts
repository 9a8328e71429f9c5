// Loads the demo company into an empty, migrated database, in one transaction.
import { localDate, localToInstant, plusDays, weekday } from '../core/time/zone'
import { generate } from '../demo/generate'
import { transaction } from '../server/db/pool'
import { clockFixed, nowMs } from '../server/http/clock'
import { setClockOffset } from '../server/settings/queries'

const ZONE = 'America/New_York'
/** What a demo's clock reads when it is loaded, whatever the hour outside. */
const MORNING = '10:21'
const FRIDAY = 5

/** The working day that a demo is loaded for: today, or at a weekend the Friday before. */
export function demoDayOf(date: string): string {
  return plusDays(date, -Math.max(0, weekday(date) - FRIDAY))
}
export async function loadDemo(options: { seed?: number; customers?: number }): Promise<void> {
  const wall = nowMs(ZONE)
  const day = clockFixed() ? localDate(wall, ZONE) : demoDayOf(localDate(wall, ZONE))
  const at = clockFixed() ? wall : localToInstant(day, MORNING, ZONE)
  await transaction(async (tx) => {
    await generate(tx, { day, at, seed: options.seed ?? 7, customers: options.customers })
    await setClockOffset(tx, at - wall)
  })
}
