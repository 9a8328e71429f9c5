// The keys of the schedule, for the help; the board answers those of a visit itself (useBoardKeys).
import type { Shortcut } from '~/lib/shortcuts'

export const BOARD_KEYS: readonly Shortcut[] = [
  { keys: 'Tab', does: 'go to the next visit' },
  { keys: '← → ↑ ↓', does: 'move it by a quarter of an hour, or to another technician' },
  { keys: 'Shift ← →', does: 'shorten, lengthen' },
  { keys: 'Enter', does: 'save the move, or look at the visit' },
  { keys: 'Esc', does: 'leave it where it was' },
  { keys: 'Delete', does: 'take it off the schedule' },
  { keys: 'S', does: 'swap with another: S on the one, S on the other' },
  { keys: 'L', does: 'lock it where it is, or unlock it' },
  { keys: 'C', does: 'a further visit of the same work order; Alt and drag puts it somewhere' },
  { keys: 'X', does: 'split it: the rest goes to the tray' },
]
/** Taken back and done again, in every view of the schedule. */
export const undoKeys = (undo: () => void, redo: () => void): readonly Shortcut[] => [
  { keys: 'Ctrl Z', press: ['Control+z', 'Meta+z'], does: 'undo', run: undo },
  {
    keys: 'Ctrl Y',
    press: ['Control+y', 'Meta+y', 'Control+Shift+z', 'Meta+Shift+z'],
    does: 'do it again',
    run: redo,
  },
]
/** The day before and the day after, in every view of the schedule. */
export const dayKeys = (go: (by: -1 | 1) => void, step = 'day'): readonly Shortcut[] => [
  { keys: '[', press: '[', does: `${step} before`, run: () => go(-1) },
  { keys: ']', press: ']', does: `${step} after`, run: () => go(1) },
]
