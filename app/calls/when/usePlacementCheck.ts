// What speaks against a time, asked before it is promised; the answer to an earlier time is dropped.
import { ref, watch, type Ref } from 'vue'
import { call } from '~/lib/api'
import type { Draft } from '~/stores/call'

export type Warning = { code: string; text: string }
export function usePlacementCheck(
  callId: string,
  draft: Ref<Draft>,
  asked: { startAt: () => number | null; skills: () => string[] },
  warnings: Ref<Warning[]>,
) {
  /** whether nobody could say */
  const unchecked = ref(false)
  function question() {
    const { technicianId, durationSeconds, promiseFrom, promiseTo, siteId } = draft.value
    const startAt = asked.startAt()
    if (!technicianId || startAt === null) return null
    return {
      visitId: null,
      callId,
      technicianId,
      startAt: new Date(startAt).toISOString(),
      durationSeconds,
      promiseFrom,
      promiseTo,
      siteId,
      skills: asked.skills(),
    }
  }
  let turn = 0
  watch(
    () => JSON.stringify(question()),
    async () => {
      const mine = ++turn
      const body = question()
      const none = { warnings: [] }
      const got = body ? await call('checkPlacement', { body }).catch(() => null) : none
      if (mine !== turn) return
      unchecked.value = got === null
      warnings.value = got?.warnings ?? []
    },
  )
  return { unchecked }
}
