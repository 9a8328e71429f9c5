// An act of the schedule: what fails is said; what the server would rather not do is asked about once, and then done.
import { ref } from 'vue'
import type { Problem } from './api'

/** @param refresh reads the day anew; whatever came of the act, others may have changed it too */
export function useScheduleAct(refresh: () => Promise<unknown>) {
  const failure = ref('')
  const refused = ref<{ text: string; again: () => Promise<void> } | null>(null)
  /** @param shown is called once the day stands as it is now */
  async function act(
    work: (override: boolean) => Promise<unknown>,
    shown: () => void = () => {},
    override = false,
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
