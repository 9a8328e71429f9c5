import type { Permission } from '../access/permissions'
import { canAct, type ActOf, type Lifecycle, type StateOf } from '../documents/lifecycle'

const states = [
  'planned',
  'driving',
  'on_site',
  'paused',
  'finished',
  'no_access',
  'cancelled',
] as const

/**
 * The life of a visit. A finish that was pressed too early, or a door that opened after all, leads back on site;
 * what was cancelled can be brought back to where it was planned. Acts stand in the order in which they are likely.
 */
export const visitLifecycle = {
  states,
  acts: {
    set_off: { from: ['planned'], to: 'driving' },
    arrive: { from: ['planned', 'driving', 'no_access'], to: 'on_site' },
    resume: { from: ['paused', 'finished'], to: 'on_site' },
    finish: { from: ['on_site', 'paused'], to: 'finished' },
    pause: { from: ['on_site'], to: 'paused' },
    no_access: { from: ['driving', 'on_site'], to: 'no_access' },
    cancel: { from: ['planned'], to: 'cancelled' },
    bring_back: { from: ['cancelled'], to: 'planned' },
  },
} as const satisfies Lifecycle<(typeof states)[number]>

export type VisitState = StateOf<typeof visitLifecycle>
export type VisitAct = ActOf<typeof visitLifecycle>
/** The acts of who is there; the others are the office's. */
export const CLOCK_ACTS = [
  'set_off',
  'arrive',
  'resume',
  'finish',
  'pause',
  'no_access',
] as const satisfies readonly VisitAct[]
export type ClockAct = (typeof CLOCK_ACTS)[number]

/** Which permission each act asks for. */
export const visitPermissions: Readonly<Record<VisitAct, Permission>> = {
  set_off: 'visits.clock',
  arrive: 'visits.clock',
  finish: 'visits.clock',
  pause: 'visits.clock',
  resume: 'visits.clock',
  no_access: 'visits.clock',
  cancel: 'dispatch.plan',
  bring_back: 'dispatch.plan',
}

/** What whoever stood before a closed door proposes: the office reads it with the visit that waits for another time. */
export const NEXT_STEPS = ['come_again', 'ring', 'give_up'] as const
export type NextStep = (typeof NEXT_STEPS)[number]

export type ClockKind = 'drive' | 'on_site' | 'paused'
/** Which clock of its technician runs while a visit is in a state, if one does. */
const CLOCKS: Readonly<Record<VisitState, ClockKind | null>> = {
  planned: null,
  driving: 'drive',
  on_site: 'on_site',
  paused: 'paused',
  finished: null,
  no_access: null,
  cancelled: null,
}
/**
 * Whether somebody is on their way to a visit, or there. Nobody is at two of them.
 * @example isUnderWay('paused') // true
 */
export const isUnderWay = (state: VisitState): boolean => CLOCKS[state] !== null

/**
 * What who is there may do to a visit in a state, the likeliest first.
 * @example clockActsFrom('paused') // ['resume', 'finish']
 */
export const clockActsFrom = (state: VisitState): ClockAct[] =>
  CLOCK_ACTS.filter((act) => canAct(visitLifecycle, act, state))

/**
 * What an act of the clock does to a visit: its next state and the clock that runs afterwards (null: none).
 * Starting work ends the drive. Null when the act is not possible in that state.
 * @example clockStep('driving', 'arrive') // { state: 'on_site', clock: 'on_site' }
 */
export function clockStep(
  state: VisitState,
  act: ClockAct,
): { state: VisitState; clock: ClockKind | null } | null {
  if (!canAct(visitLifecycle, act, state)) return null
  const { to } = visitLifecycle.acts[act]
  return { state: to, clock: CLOCKS[to] }
}
