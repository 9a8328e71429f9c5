import type { VisitState } from './workOrderState'

export type ClockAct = 'set_off' | 'arrive' | 'pause' | 'resume' | 'finish' | 'no_access'
type ClockKind = 'drive' | 'on_site' | 'paused'

/**
 * What an act of the clock does to a visit: its next state and the clock that runs afterwards (null: none).
 * Starting work ends the drive. Null when the act is not possible in that state.
 * @example clockStep('driving', 'arrive') // { state: 'on_site', clock: 'on_site' }
 */
export function clockStep(
  state: VisitState,
  act: ClockAct,
): { state: VisitState; clock: ClockKind | null } | null {
  const steps: Partial<
    Record<VisitState, Partial<Record<ClockAct, { state: VisitState; clock: ClockKind | null }>>>
  > = {
    planned: {
      set_off: { state: 'driving', clock: 'drive' },
      arrive: { state: 'on_site', clock: 'on_site' },
    },
    driving: {
      arrive: { state: 'on_site', clock: 'on_site' },
      no_access: { state: 'no_access', clock: null },
    },
    on_site: {
      pause: { state: 'paused', clock: 'paused' },
      finish: { state: 'finished', clock: null },
      no_access: { state: 'no_access', clock: null },
    },
    // A finish that was pressed too early, or a door that opened after all, leads back.
    finished: { resume: { state: 'on_site', clock: 'on_site' } },
    no_access: { arrive: { state: 'on_site', clock: 'on_site' } },
    paused: {
      resume: { state: 'on_site', clock: 'on_site' },
      finish: { state: 'finished', clock: null },
    },
  }
  return steps[state]?.[act] ?? null
}
