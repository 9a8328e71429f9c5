// The app's clock in tests: a file that the app reads.
import { renameSync, writeFileSync } from 'node:fs'

/** Moves the clock to a local time. In one step: a request that reads it meanwhile sees the old time or the new one, never half of one. */
export function setClock(local: string): void {
  const file = process.env.CLOCK_FILE!
  writeFileSync(`${file}.next`, local)
  renameSync(`${file}.next`, file)
}
