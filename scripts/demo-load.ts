// Loads the demo company into an empty, migrated database, in one transaction.
import { generate } from '../demo/generate'
import { localDate } from '../core/time/zone'
import { transaction } from '../server/db/pool'
import { nowMs } from '../server/http/clock'

export async function loadDemo(options: { seed?: number, customers?: number }): Promise<void> {
  const zone = 'America/New_York'
  const at = nowMs(zone)
  await transaction(tx => generate(tx, { day: localDate(at, zone), at, seed: options.seed ?? 7, customers: options.customers }))
}
