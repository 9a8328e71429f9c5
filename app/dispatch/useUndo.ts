// What was done to visits is taken back, and done again; what speaks against it is asked.
import { useScheduleAct } from '~/lib/useScheduleAct'
import { useBoard } from '~/stores/board'

/** @param refresh asks anew for what is shown */
export function useUndo(refresh: () => Promise<unknown>) {
  const board = useBoard()
  const { failure, refused, act } = useScheduleAct(refresh)
  return {
    failure,
    refused,
    undo: () => act((override) => board.undo(override)),
    redo: () => act((override) => board.redo(override)),
  }
}
