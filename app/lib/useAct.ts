// An act of a person: its problem beside it, never two at once, each after what was begun before it.
import { computed, ref } from 'vue'
import type { Problem } from './api'

/**
 * A second press on a button is dropped; what is added one after the other waits its turn (`wait`); what is kept because its field was left
 * (`aside`) waits, too, and holds up no button: who presses one waits behind it.
 */
export type WhenBusy = 'drop' | 'wait' | 'aside'

export function useAct() {
  /** presses that run or wait for their turn */
  const pressed = ref(0)
  const busy = computed(() => pressed.value > 0)
  const problem = ref<Problem | null>(null)
  let last: Promise<unknown> = Promise.resolve()
  async function act<T>(
    work: () => Promise<T>,
    whenBusy: WhenBusy = 'drop',
  ): Promise<T | undefined> {
    if (busy.value && whenBusy === 'drop') return undefined
    const counts = whenBusy === 'aside' ? 0 : 1
    pressed.value += counts
    const turn = last.then(() => run(work)).finally(() => (pressed.value -= counts))
    last = turn
    return turn
  }
  async function run<T>(work: () => Promise<T>): Promise<T | undefined> {
    problem.value = null
    try {
      return await work()
    } catch (error) {
      problem.value = error as Problem
      return undefined
    }
  }
  return { busy, problem, act }
}
