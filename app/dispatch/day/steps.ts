// Times on the board are moved by a quarter of an hour.
import { MINUTE } from '~~/core/time/units'

export const STEP_MS = 15 * MINUTE
export const STEP_SECONDS = STEP_MS / 1000
/** Where a pointer is along the hours, which run across, or turned, down. */
export const pointOf = ({ clientX, clientY }: MouseEvent, turned: boolean): number =>
  turned ? clientY : clientX
/** Where a lane begins along the hours, and how long it is. */
export const alongOf = ({ left, top, width, height }: DOMRect, turned: boolean) =>
  turned ? { begin: top, size: height } : { begin: left, size: width }
/** The time that a lane was pressed at, at the step before it. */
export function timeAt(
  e: MouseEvent,
  { from, span }: { from: number; span: number },
  turned: boolean,
): string {
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const { begin, size } = alongOf(box, turned)
  const into = ((pointOf(e, turned) - begin) / size) * span
  return new Date(from + Math.floor(into / STEP_MS) * STEP_MS).toISOString()
}
