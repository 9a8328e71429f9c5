// What is done to visits on the board: placed, locked, copied, split, swapped, undone; one act after the other.
import { nextTick, ref, type Ref } from 'vue'
import { call } from '~/lib/api'
import type { Trying } from '~/lib/boardDay'
import { useScheduleAct } from '~/lib/useScheduleAct'
import { useBoard, type Place } from '~/stores/board'
import type { Visit } from './useDay'
import { STEP_SECONDS } from './steps'

const half = (v: Visit) =>
  Math.max(1, Math.round(v.durationSeconds / 2 / STEP_SECONDS)) * STEP_SECONDS

type Act = ReturnType<typeof useScheduleAct>['act']
/** Further visits of the same work order: a copy, the rest of a split, or one put where it was let go. */
function furtherActs(act: Act, asNow: (visit: Visit) => Visit) {
  const board = useBoard()
  return {
    another: (visit: Visit, { technicianId, startAt }: Place) =>
      act(() => {
        const { durationSeconds } = visit
        const at = { split: false, durationSeconds, technicianId, startAt }
        return board.further(asNow(visit), at)
      }),
    copy: (visit: Visit) =>
      act(() => {
        const now = asNow(visit)
        return board.further(now, { split: false, durationSeconds: now.durationSeconds })
      }),
    split: (visit: Visit) =>
      act(() => {
        const now = asNow(visit)
        return board.further(now, { split: true, durationSeconds: half(now) })
      }),
  }
}

export function useBoardActs(
  trying: Ref<Trying | null>,
  visitOf: (id: string) => Visit | undefined,
  refresh: () => Promise<void>,
) {
  const board = useBoard()
  const { failure, refused, act } = useScheduleAct(refresh)
  /** A visit as it stands when its turn has come: an act before it may have changed it. */
  const asNow = (visit: Visit): Visit => visitOf(visit.id) ?? visit
  /** The same, where it still stands at the place that was seen; else the server is to say that somebody moved it. */
  function asSeen(visit: Visit): Visit {
    const now = asNow(visit)
    const moved = now.technicianId !== visit.technicianId || now.startAt !== visit.startAt
    return moved || now.durationSeconds !== visit.durationSeconds ? visit : now
  }
  const focus = (visit: Visit) =>
    nextTick(
      () =>
        refused.value || document.querySelector<HTMLElement>(`[data-visit="${visit.id}"]`)?.focus(),
    )
  const save = (visit: Visit, place: Place) =>
    act(
      (override, answer) =>
        board.place(asSeen(visit), place, override, answer).finally(() => {
          trying.value = null
        }),
      // The keyboard goes on where it was, also when the card stands in another row now.
      () => void focus(visit),
    )
  const swapping = ref<Visit | null>(null)
  return {
    failure,
    refused,
    swapping,
    save,
    toggleLock: (visit: Visit) =>
      act(() => {
        const { id, version } = asSeen(visit)
        return call('lockVisit', { params: { id }, body: { version, locked: !visit.locked } })
      }),
    ...furtherActs(act, asNow),
    /** The first is remembered; a second one changes places with it. */
    async swap(visit: Visit) {
      const first = swapping.value
      if (!first || first.id === visit.id) return void (swapping.value = first ? null : visit)
      swapping.value = null
      await act((override) => board.swap(asSeen(first), asSeen(visit), override))
    },
    redo: () => act((override) => board.redo(override)),
    undo: () => act((override) => board.undo(override)),
  }
}
