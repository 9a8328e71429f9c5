// Drag by pointer: visits, their end, and cards of the tray.
import { nextTick, type Ref } from 'vue'
import type { Frame, Trying } from '~/lib/boardDay'
import type { Place } from '~/stores/board'
import { alongOf, pointOf, STEP_MS, STEP_SECONDS } from './steps'
import type { Visit } from './useDay'
import { keyOf } from './useTrying'

/** Less than this is a press that trembled. */
const MOVED_PX = 5
/** Where a card of the tray is held, from its left edge. */
const CARD_GRAB_PX = 20
interface Board {
  may: Ref<boolean>
  frame: Ref<Frame>
  /** the hours run down instead of across */
  turned: Ref<boolean>
  trying: Ref<Trying | null>
  rows: Ref<HTMLElement | undefined>
  /** whether it stands in its row, and not in the tray */
  isPlaced: (visit: Visit) => boolean
  open: (visit: Visit) => void
  save: (visit: Visit, place: Place) => unknown
  another: (visit: Visit, place: Place) => unknown
}
const placeOf = ({ technicianId, startAt, durationSeconds }: Visit): Place => ({
  technicianId,
  startAt,
  durationSeconds,
})

/** Where the rows stand, measured when a drag begins and when the board is scrolled: asking at each move would lay the page out again. */
function useRows({ rows, frame, turned }: Pick<Board, 'rows' | 'frame' | 'turned'>) {
  let boxes: { row: HTMLElement; box: DOMRect }[] = []
  const measure = () => {
    const all = rows.value?.querySelectorAll<HTMLElement>('[data-technician]') ?? []
    boxes = [...all].map((row) => ({ row, box: row.getBoundingClientRect() }))
  }
  /** The row and the time beneath a point, or nothing beside the board. */
  function under(e: PointerEvent, grab: number): Omit<Place, 'durationSeconds'> | null {
    const { clientX: x, clientY: y } = e
    const at = boxes.find(
      ({ box }) => y >= box.top && y <= box.bottom && x >= box.left && x <= box.right,
    )
    if (!at) return null
    const { from, span } = frame.value
    const { begin, size } = alongOf(at.box, turned.value)
    const ms = from + ((pointOf(e, turned.value) - begin - grab) / size) * span
    const stepped = Math.max(from, Math.round(ms / STEP_MS) * STEP_MS)
    return {
      technicianId: at.row.dataset.technician || null,
      startAt: new Date(stepped).toISOString(),
    }
  }
  function longer(visit: Visit, pixels: number): Place {
    const { size } = alongOf(boxes[0]!.box, turned.value)
    const seconds = ((pixels / size) * frame.value.span) / 1000
    const steps = Math.round((visit.durationSeconds + seconds) / STEP_SECONDS)
    return { ...placeOf(visit), durationSeconds: Math.max(1, steps) * STEP_SECONDS }
  }
  return { measure, under, longer }
}

export function useBoardDrag(board: Board) {
  const { trying } = board
  const { measure, under, longer } = useRows(board)
  /** Begins where a visit was taken hold of; by its edge it is made longer or shorter. */
  function drag(e: PointerEvent, visit: Visit, edge: boolean) {
    if (!board.may.value || e.button !== 0) return
    if (visit.locked && !e.altKey) return board.open(visit)
    const held = e.currentTarget as HTMLElement
    const placed = board.isPlaced(visit)
    const along = (m: PointerEvent) => pointOf(m, board.turned.value)
    const { begin } = alongOf(held.getBoundingClientRect(), board.turned.value)
    const grab = placed ? along(e) - begin : CARD_GRAB_PX
    measure()
    const to = (m: PointerEvent): Place | null => {
      if (edge) return longer(visit, along(m) - along(e))
      const at = under(m, grab)
      return at && { ...placeOf(visit), ...at }
    }
    follow(e, {
      // The row of what nobody has yet comes with the first move.
      begun: () => void nextTick(measure),
      moved(m) {
        const place = to(m)
        const next = place ? { visit, place, warnings: trying.value?.warnings ?? [] } : null
        if (keyOf(next) !== keyOf(trying.value)) trying.value = next
      },
      // With Alt it is not moved: a further visit of the same work order is put there.
      dropped: () => drop(visit, e.altKey && placed && !edge),
      pressed: () => edge || board.open(visit),
      left: () => {
        trying.value = null
      },
      scrolled: measure,
    })
    e.preventDefault()
    held.focus()
  }
  function drop(visit: Visit, another: boolean) {
    if (!trying.value) return
    const { place } = trying.value
    if (!another) return board.save(visit, place)
    trying.value = null
    return board.another(visit, place)
  }
  return { drag }
}
interface Followed {
  begun: () => void
  moved: (e: PointerEvent) => void
  dropped: () => unknown
  pressed: () => unknown
  left: () => void
  scrolled: () => void
}
/** A click that ends a drag is none: the browser gives it to whatever lies under both its ends. */
function swallowClick() {
  const swallow = (e: MouseEvent) => {
    e.preventDefault()
    e.stopPropagation()
  }
  window.addEventListener('click', swallow, { capture: true, once: true })
  // It comes with the release or not at all.
  setTimeout(() => window.removeEventListener('click', swallow, { capture: true }), 0)
}
/** Follows a pointer until it is let go, or Escape leaves it. */
function follow(from: PointerEvent, to: Followed) {
  let begun = false
  const move = (m: PointerEvent) => {
    if (!begun && Math.hypot(m.clientX - from.clientX, m.clientY - from.clientY) < MOVED_PX) return
    if (!begun) to.begun()
    begun = true
    to.moved(m)
  }
  const stop = () => {
    window.removeEventListener('pointermove', move)
    window.removeEventListener('scroll', to.scrolled, true)
    window.removeEventListener('pointerup', up)
    window.removeEventListener('keydown', escape)
  }
  const up = () => {
    stop()
    if (begun) swallowClick()
    void (begun ? to.dropped() : to.pressed())
  }
  const escape = (e: KeyboardEvent) => {
    if (e.key !== 'Escape') return
    stop()
    // The hand is still down; what it lets go of later is no click either.
    window.addEventListener('pointerup', swallowClick, { once: true })
    to.left()
  }
  window.addEventListener('pointermove', move)
  window.addEventListener('scroll', to.scrolled, true)
  window.addEventListener('pointerup', up)
  window.addEventListener('keydown', escape)
}
