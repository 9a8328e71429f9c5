import { computed } from 'vue'
import { useRouter } from 'vue-router'

/**
 * The step of a page that has several: it stands in the address, so that Back leads to the step before, and a reload to the same one.
 * @param steps the first one is where the page begins
 */
export function useStep<const Step extends string>(steps: readonly [Step, ...Step[]]) {
  const route = useRoute()
  const router = useRouter()
  const first = steps[0]
  const step = computed(() => steps.find((one) => one === route.query.step) ?? first)
  const at = (to: Step) => ({ query: to === first ? {} : { step: to } })
  const go = (to: Step) => void router.push(at(to))
  /** Back to where the page begins. */
  function leave() {
    const before = (window.history.state as { back?: string } | null)?.back
    if (before === route.path) router.back()
    else void router.replace(at(first))
  }
  return { step, go, leave }
}
