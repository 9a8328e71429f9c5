// Questions of the screen that have no answer and that no part of it speaks of: the edge of the window does, so that a failure is never shown
// as nothing.
import { onScopeDispose, ref, shallowReactive, watch, type Ref } from 'vue'

export interface Unanswered {
  message: string
  again: () => unknown
}
export const unanswered = shallowReactive(new Map<symbol, Unanswered>())

/** Speaks of a problem for as long as there is one and its screen is there, unless the screen does so itself. */
export function sayUnanswered(
  problem: Readonly<Ref<{ message: string } | null>>,
  again: () => unknown,
  isSaid: () => boolean = () => false,
): void {
  const mine = Symbol('question')
  watch(
    problem,
    (now) => {
      if (now && !isSaid()) unanswered.set(mine, { message: now.message, again })
      else unanswered.delete(mine)
    },
    { immediate: true },
  )
  onScopeDispose(() => unanswered.delete(mine))
}
/**
 * For questions that a screen asks at a moment of its own: what has no answer is null, and the edge of the window says so until it is asked
 * again, from there or here.
 * @example const ask = useAsking(); const load = async () => (found.value = await ask(() => call('…'), load))
 */
export function useAsking() {
  const problem = ref<{ message: string } | null>(null)
  let ask: () => unknown = () => {}
  let turn = 0
  sayUnanswered(problem, () => ask())
  return async <T>(work: () => Promise<T>, again: () => unknown): Promise<T | null> => {
    const mine = ++turn
    ask = again
    const [got, wrong] = await work().then(
      (answer) => [answer, null] as const,
      (error: Error) => [null, error] as const,
    )
    // Of two that overlap, the later one says whether something is missing.
    if (mine === turn) problem.value = wrong
    return got
  }
}
