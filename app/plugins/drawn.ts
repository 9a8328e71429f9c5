// Where the server drew the first screen, it and the app begin with the same answers, and nothing is asked twice.
import { useQueryCache } from '@pinia/colada'
import { toRaw } from 'vue'
import { giveAhead } from '~/lib/ahead'
import { readAsOf } from '~/lib/live'
import { useSession } from '~/stores/session'
import type { Drawn } from '~~/shared/drawn'

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
    useSession().begin(session)
    if (import.meta.server) return
    readAsOf(lastEvent)
    giveAhead('fieldDay', fieldDay)
  },
})
