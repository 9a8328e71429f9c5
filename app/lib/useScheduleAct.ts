// An act of the schedule: what fails is said; what the server would rather not do is asked about once, and then done.
import { ref } from 'vue'
import { refusedBy, type PromiseAnswer, type Refused } from '~/dispatch/visit/promise'
import type { Problem } from './api'

/** Does it; the second time in spite of what was said, with what is promised then. */
export type Work = (override: boolean, answer?: PromiseAnswer) => Promise<unknown>

/** @param refresh reads the day anew; whatever came of the act, others may have changed it too */
export function useScheduleAct(refresh: () => Promise<unknown>) {
  const failure = ref('')
  const refused = ref<(Refused & { again: (answer: PromiseAnswer) => Promise<void> }) | null>(null)
  let last: Promise<void> = Promise.resolve()
  /**
   * Acts follow each other: what is asked for while another one is under way waits for it, and finds
   * the day as that left it.
   * @param shown is called once the day stands as it is now
   */
  function act(work: Work, shown: () => void = () => {}, answer?: PromiseAnswer): Promise<void> {
    const mine = last.then(() => once(work, shown, answer))
    // Whatever became of this one, the next one has its turn.
    last = mine.catch(() => {})
    return mine
  }
  async function once(work: Work, shown: () => void, answer?: PromiseAnswer): Promise<void> {
    failure.value = ''
    refused.value = null
    try {
      await work(answer !== undefined, answer)
    } catch (error) {
      const asked = answer ? null : refusedBy(error)
      if (asked) refused.value = { ...asked, again: (said) => act(work, shown, said) }
      else failure.value = (error as Problem).message
    }
    await refresh()
    shown()
  }
  return { failure, refused, act }
}
