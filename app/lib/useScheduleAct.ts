// An act of the schedule: what fails is said; what the server would rather not do is asked about once, and then done.
import { ref } from 'vue'
import type { Problem } from './api'

/** @param refresh reads the day anew; whatever came of the act, others may have changed it too */
export function useScheduleAct(refresh: () => Promise<unknown>) {
  const failure = ref('')
  const refused = ref<{ text: string; again: () => Promise<void> } | null>(null)
  let last: Promise<void> = Promise.resolve()
  /**
   * Acts follow each other: what is asked for while another one is under way waits for it, and finds
   * the day as that left it.
   * @param shown is called once the day stands as it is now
   */
  function act(
    work: (override: boolean) => Promise<unknown>,
    shown: () => void = () => {},
    override = false,
  ): Promise<void> {
    const mine = last.then(() => once(work, shown, override))
    // Whatever became of this one, the next one has its turn.
    last = mine.catch(() => {})
    return mine
  }
  async function once(
    work: (override: boolean) => Promise<unknown>,
    shown: () => void,
    override: boolean,
  ): Promise<void> {
    failure.value = ''
    refused.value = null
    try {
      await work(override)
    } catch (error) {
      const { code, message } = error as Problem
      if (code === 'placement_warning' && !override)
        refused.value = { text: message, again: () => act(work, shown, true) }
      else failure.value = message
    }
    await refresh()
    shown()
  }
  return { failure, refused, act }
}
