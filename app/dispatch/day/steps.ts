// Times on the board are moved by a quarter of an hour.
import { MINUTE } from '~~/core/time/units'

export const STEP_MS = 15 * MINUTE
export const STEP_SECONDS = STEP_MS / 1000
