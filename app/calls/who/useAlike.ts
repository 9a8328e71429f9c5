// Nobody is entered twice: who is perhaps the same is shown while the new one is typed.
import { onBeforeUnmount, ref, watch, type Ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import type { Draft } from '~/stores/call'

const SHORTEST = 7
const AFTER_MS = 200
export function useAlike(draft: Ref<Draft>) {
  const alike = ref<Answer<'alike'>['items']>([])
  const unseen = ref(false)
  let waiting: ReturnType<typeof setTimeout> | undefined
  let turn = 0
  async function look() {
    const mine = ++turn
    const { name, phone, email, line1 } = draft.value
    const got = await call('alike', { body: { name, phone, email, line1 } }).catch(() => null)
    // What was typed meanwhile is another question.
    if (mine !== turn) return
    unseen.value = got === null
    alike.value = got?.items ?? []
  }
  watch(
    () => [draft.value.name, draft.value.phone, draft.value.email, draft.value.line1].join('|'),
    (typed) => {
      clearTimeout(waiting)
      turn++
      if (typed.length < SHORTEST) alike.value = []
      else waiting = setTimeout(() => void look(), AFTER_MS)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => clearTimeout(waiting))
  return { alike, unseen }
}
