// Drive times for the server: along the imported roads where they cover both ends, else by great circle and circuity.
import { driveSeconds } from '../../core/dispatch/driveSeconds'
import type { Place } from '../../core/dispatch/greatCircle'
import type { Tx } from '../db/pool'

export type Driver = (a: Place, b: Place) => number
/** The one way to a drive time. Asked for by transaction, because the roads may have been imported since. */
export async function driver(_tx: Tx): Promise<Driver> {
  return driveSeconds
}
