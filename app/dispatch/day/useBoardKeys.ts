// The keyboard does what the pointer does: arrows try, Enter saves, Escape leaves it; letters act on the visit at once.
import type { Ref } from 'vue'
import { DAY, HOUR } from '~~/core/time/units'
import type { Frame, Trying } from '~/lib/boardDay'
import type { Place } from '~/stores/board'
import { STEP_MS, STEP_SECONDS } from './steps'
import type { Visit } from './useDay'

const LONGEST_SECONDS = DAY / 1000
/** Two halves of it are a quarter of an hour each. */
const SHORTEST_SPLIT_SECONDS = 2 * STEP_SECONDS
interface Board {
  may: Ref<boolean>
  now: Ref<number>
  frame: Ref<Frame>
  /** the hours run down instead of across, and the arrows with them */
  turned: Ref<boolean>
  trying: Ref<Trying | null>
  swapping: Ref<Visit | null>
  /** the rows from top to bottom; null is the row of what nobody has yet */
  rows: () => (string | null)[]
  open: (visit: Visit) => void
  refuse: (sentence: string) => void
  save: (visit: Visit, place: Place) => unknown
  swap: (visit: Visit) => unknown
  toggleLock: (visit: Visit) => unknown
  copy: (visit: Visit) => unknown
  split: (visit: Visit) => unknown
}

const shifted = (place: Place, ms: number): Place => ({
  ...place,
  startAt: new Date(Date.parse(place.startAt!) + ms).toISOString(),
})
const stretched = (place: Place, seconds: number): Place => ({
  ...place,
  durationSeconds: Math.min(
    LONGEST_SECONDS,
    Math.max(STEP_SECONDS, place.durationSeconds + seconds),
  ),
})
const NOWHERE = { technicianId: null, startAt: null }
/** What the arrows do to a place, with Shift to its length. */
function movesIn(rows: Board['rows']): Record<string, (place: Place, shift: boolean) => Place> {
  function inRow(place: Place, step: number): Place {
    const shown = rows()
    const at = shown.indexOf(place.technicianId) + step
    return { ...place, technicianId: shown[Math.max(0, Math.min(shown.length - 1, at))]! }
  }
  return {
    ArrowRight: (p, shift) => (shift ? stretched(p, STEP_SECONDS) : shifted(p, STEP_MS)),
    ArrowLeft: (p, shift) => (shift ? stretched(p, -STEP_SECONDS) : shifted(p, -STEP_MS)),
    ArrowDown: (p) => inRow(p, 1),
    ArrowUp: (p) => inRow(p, -1),
  }
}

/** Which arrow acts as which where the hours run down. */
const TURNED: Readonly<Record<string, string>> = {
  ArrowDown: 'ArrowRight',
  ArrowUp: 'ArrowLeft',
  ArrowRight: 'ArrowDown',
  ArrowLeft: 'ArrowUp',
}
export function useBoardKeys(board: Board) {
  const { trying, frame } = board
  /** Where a visit is tried, or stands; one without a slot begins at the next hour, in the first row. */
  function placeOf(visit: Visit): Place {
    if (trying.value?.visit.id === visit.id) return trying.value.place
    const { from, span } = frame.value
    const nextHour = Math.ceil(Math.max(board.now.value, from) / HOUR) * HOUR
    return {
      technicianId: visit.technicianId ?? (visit.startAt ? null : board.rows()[0]!),
      startAt: visit.startAt ?? new Date(Math.min(nextHour, from + span - HOUR)).toISOString(),
      durationSeconds: visit.durationSeconds,
    }
  }
  const moves = movesIn(board.rows)
  /** What a key does to a visit, or nothing where it does not apply. */
  const acts = (visit: Visit): Record<string, (() => unknown) | false> => {
    const may = board.may.value
    const placed = visit.startAt !== null
    return {
      enter: () =>
        trying.value?.visit.id === visit.id
          ? board.save(visit, trying.value.place)
          : board.open(visit),
      escape: () => {
        trying.value = null
        board.swapping.value = null
      },
      s: may && placed && (() => board.swap(visit)),
      l: may && placed && (() => board.toggleLock(visit)),
      c: may && (() => board.copy(visit)),
      x: may && visit.durationSeconds >= SHORTEST_SPLIT_SECONDS && (() => board.split(visit)),
      delete:
        placed && (() => board.save(visit, { ...NOWHERE, durationSeconds: visit.durationSeconds })),
    }
  }
  /** Tries the visit a step further. */
  function step(visit: Visit, place: Place) {
    if (visit.locked) board.refuse('This visit is locked where it is. L unlocks it.')
    else if (board.may.value) trying.value = { visit, place, warnings: [] }
  }
  return function key(e: KeyboardEvent, visit: Visit) {
    const move = moves[(board.turned.value && TURNED[e.key]) || e.key]
    // Ctrl C and Ctrl X are the browser's.
    const act = !(e.ctrlKey || e.metaKey) && acts(visit)[e.key.toLowerCase()]
    if (move) step(visit, move(placeOf(visit), e.shiftKey))
    // A key that is held moves on, and acts once.
    else if (act) void (e.repeat ? undefined : act())
    else return
    e.preventDefault()
  }
}
