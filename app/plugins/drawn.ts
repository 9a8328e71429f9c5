// Where the server drew the first screen, it and the app begin with the same answers, and nothing is asked twice.
import { useQueryCache } from '@pinia/colada'
import { toRaw } from 'vue'
import { giveAhead } from '~/lib/ahead'
import { readAsOf } from '~/lib/live'
import { useSession } from '~/stores/session'
import type { Drawn } from '~~/shared/drawn'

/** When the page began to arrive: on a slow line long before its app runs. */
function arrivedAt(): number {
  const [page] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[]
  return performance.timeOrigin + (page?.responseStart ?? 0)
}
export default defineNuxtPlugin({
  name: 'drawn',
  dependsOn: ['pinia', 'colada'],
  setup({ ssrContext }) {
    const drawn = useState(
      'drawn',
      () => (ssrContext?.event.context.drawn as Drawn | undefined) ?? null,
    )
    if (!drawn.value) return
    const { session, fieldDay, lastEvent } = toRaw(drawn.value)
    useQueryCache().setQueryData(['fieldDay', {}], fieldDay)
    useSession().begin(session, import.meta.server ? 0 : arrivedAt())
    if (import.meta.server) return
    readAsOf(lastEvent)
    giveAhead('fieldDay', fieldDay)
  },
})
