// Times on the board are moved by a quarter of an hour.
import { MINUTE } from '~~/core/time/units'

export const STEP_MS = 15 * MINUTE
export const STEP_SECONDS = STEP_MS / 1000
/** The time that a lane was pressed at, at the step before it. */
export function timeAt(e: MouseEvent, { from, span }: { from: number; span: number }): string {
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const into = ((e.clientX - box.left) / box.width) * span
  return new Date(from + Math.floor(into / STEP_MS) * STEP_MS).toISOString()
}
