// A placement that is being tried: shown dashed, its warnings said, saved with Enter or by letting go.
import { computed, provide, ref, watch } from 'vue'
import { call, type Problem } from '~/lib/api'
import { TRYING, type Trying } from '~/lib/boardDay'

/** Asked once the hand rests for a moment: a drag over the board passes a hundred places that nobody means. */
const REST_MS = 120
export const keyOf = (t: Trying | null): string | null =>
  t && [t.visit.id, t.place.technicianId, t.place.startAt, t.place.durationSeconds].join()

export function useTrying() {
  const trying = ref<Trying | null>(null)
  // Each row asks for itself whether it is tried there: a drag draws the rows that it leaves and enters, and not the page.
  provide(TRYING, trying)
  let asked = 0
  let soon: ReturnType<typeof setTimeout> | undefined
  async function check() {
    const mine = ++asked
    const { visit, place } = trying.value ?? {}
    if (!visit || !place?.technicianId || !place.startAt) {
      // Nothing speaks against a place that is nobody's.
      if (trying.value) trying.value.warnings = []
      return
    }
    const { warnings } = await call('checkPlacement', {
      body: {
        visitId: visit.id,
        technicianId: place.technicianId,
        startAt: place.startAt,
        durationSeconds: place.durationSeconds,
        promiseFrom: visit.promiseFrom ?? '',
        promiseTo: visit.promiseTo ?? '',
        siteId: visit.siteId,
        skills: visit.skills,
      },
      // That nothing could be asked is not that nothing speaks against it.
    }).catch((error: Problem) => ({ warnings: [{ text: `Not checked: ${error.message}` }] }))
    if (mine === asked && trying.value) trying.value.warnings = warnings.map((w) => w.text)
  }
  watch(
    () => keyOf(trying.value),
    () => {
      clearTimeout(soon)
      soon = setTimeout(() => void check(), REST_MS)
    },
  )
  return {
    trying,
    tried: computed(() => trying.value !== null),
    warnings: computed(() => trying.value?.warnings.join('; ') ?? ''),
  }
}
