// An act of a person: busy while it runs, its problem beside it, never two at once. What is added one after the other waits its turn
// (`wait`); a second press on the same button is dropped.
import { computed, ref } from 'vue'
import type { Problem } from './api'

export function useAct() {
  /** acts that run or wait for their turn */
  const waiting = ref(0)
  const busy = computed(() => waiting.value > 0)
  const problem = ref<Problem | null>(null)
  let last: Promise<unknown> = Promise.resolve()
  async function act<T>(
    work: () => Promise<T>,
    whenBusy: 'drop' | 'wait' = 'drop',
  ): Promise<T | undefined> {
    if (busy.value && whenBusy === 'drop') return undefined
    waiting.value++
    const turn = last.then(() => run(work))
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
    } finally {
      waiting.value--
    }
  }
  return { busy, problem, act }
}
