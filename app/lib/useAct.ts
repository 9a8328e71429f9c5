// An act of a person: busy while it runs, its problem beside it, never two at once.
import { ref } from 'vue'
import type { Problem } from './api'

export function useAct() {
  const busy = ref(false)
  const problem = ref<Problem | null>(null)
  async function act<T>(work: () => Promise<T>): Promise<T | undefined> {
    if (busy.value) return undefined
    busy.value = true
    problem.value = null
    try {
      return await work()
    }
    catch (error) {
      problem.value = error as Problem
      return undefined
    }
    finally {
      busy.value = false
    }
  }
  return { busy, problem, act }
}
