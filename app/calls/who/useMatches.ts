// Who it could be, while it is typed: the answer to the last question counts, however late another one comes.
import { onMounted, ref, watch, type Ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, type Problem } from '~/lib/api'
import type { Draft } from '~/stores/call'

const SHORTEST = 2
export function useMatches(draft: Ref<Draft>, isLooking: () => boolean) {
  const matches = ref<Answer<'matches'>['items']>([])
  const at = ref(0)
  /** why nobody could be looked for */
  const unseen = ref('')
  let turn = 0
  let pending: Promise<void> = Promise.resolve()
  async function search() {
    const words = draft.value.query.trim()
    const mine = ++turn
    if (words.length < SHORTEST) return void (matches.value = [])
    try {
      const got = await call('matches', { query: { q: words } })
      if (mine !== turn) return
      matches.value = got.items
      unseen.value = ''
    } catch (error) {
      // Nobody was looked for: that is not “nobody was found”.
      if (mine !== turn) return
      matches.value = []
      unseen.value = (error as Problem).message
    }
    at.value = 0
  }
  watch(
    () => draft.value.query,
    () => {
      if (isLooking()) pending = search()
    },
  )
  onMounted(() => {
    if (isLooking() && draft.value.query) void search()
  })
  const step = (by: number) =>
    (at.value = Math.min(matches.value.length, Math.max(0, at.value + by)))
  function forget() {
    turn++
    matches.value = []
  }
  return { matches, at, unseen, search, step, forget, settled: () => pending }
}
