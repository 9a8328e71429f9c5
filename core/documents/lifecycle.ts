/**
 * One act on a thing: the states in which it may happen, and the state that it leads to; none where
 * the state is not stored but follows from what is true afterwards.
 */
export interface Act<State extends string = string> {
  from: readonly State[]
  to?: State
}

/** The whole life of a kind of thing, in one place: whatever shows, guards or filters states follows from it. */
export interface Lifecycle<State extends string = string> {
  states: readonly State[]
  acts: Readonly<Record<string, Act<State>>>
}

export type StateOf<Life extends Lifecycle> = Life['states'][number]
export type ActOf<Life extends Lifecycle> = keyof Life['acts'] & string

/**
 * Whether an act may happen to a thing in this state.
 * @example canAct(quoteLifecycle, 'send', 'draft') // true
 */
export const canAct = <Life extends Lifecycle>(
  life: Life,
  act: ActOf<Life>,
  state: StateOf<Life>,
): boolean => life.acts[act]!.from.includes(state)

/**
 * The acts that may happen to a thing in this state, in the order of the lifecycle.
 * @example actsFrom(quoteLifecycle, 'accepted') // []
 */
export const actsFrom = <Life extends Lifecycle>(life: Life, state: StateOf<Life>): ActOf<Life>[] =>
  (Object.keys(life.acts) as ActOf<Life>[]).filter((act) => canAct(life, act, state))

/**
 * The state that an act leads to.
 * @example stateAfter(quoteLifecycle, 'send') // 'sent'
 */
export const stateAfter = <
  Life extends Lifecycle & { acts: Record<string, { to: StateOf<Life> }> },
  A extends ActOf<Life>,
>(
  life: Life,
  act: A,
): Life['acts'][A]['to'] => life.acts[act]!.to
