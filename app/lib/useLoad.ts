// What a screen shows: loaded when it opens, again when something changed elsewhere; keeps the old while the new is on its way, and
// whatever is the same in both, so that only what changed is drawn anew.
import { onMounted, ref, shallowRef } from 'vue'
import { keepEqual } from './keepEqual'
import { onLive, type Shows } from './live'
import type { Problem } from './api'

export function useLoad<T>(load: () => Promise<T>, patience = 0, shows: Shows = {}) {
  const data = shallowRef<T | null>(null)
  const problem = ref<Problem | null>(null)
  let turn = 0
  async function refresh() {
    const mine = ++turn
    try {
      const got = await load()
      // An answer that was overtaken by a later question is dropped.
      if (mine === turn) {
        data.value = keepEqual(data.value, got)
        problem.value = null
      }
    } catch (error) {
      if (mine === turn) problem.value = error as Problem
    }
  }
  onMounted(refresh)
  onLive(() => void refresh(), patience, shows)
  return { data, problem, refresh }
}
