// Somebody who is near is sent to a place on the map: what waits there is theirs then; where nothing waits, a call begins.
import { ref, watch, type Ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { STEP_MS } from '~/dispatch/day/steps'
import { refusedBy, type PromiseAnswer, type Refused } from '~/dispatch/visit/promise'
import { useAct } from '~/lib/useAct'
import { useBoard } from '~/stores/board'
import { useSession } from '~/stores/session'

type Nearby = Answer<'nearest'>['items'][number]
interface Place {
  site: Ref<string | null>
  date: Ref<string>
  /** what waits at the site for a slot */
  waiting: () => Answer<'schedule'>['tray'][number] | undefined
  customerId: () => string
  /** asks anew for what is shown */
  shown: () => Promise<unknown>
}
const quarter = (at: string) =>
  new Date(Math.ceil(Date.parse(at) / STEP_MS) * STEP_MS).toISOString()

export function useSendNearest({ site, date, waiting, customerId, shown }: Place) {
  const session = useSession()
  const board = useBoard()
  const { problem: failed, act } = useAct()
  const said = ref('')
  const warned = ref<(Refused & { by: Nearby }) | null>(null)
  // What is said, or asked, is about the place that it was said of.
  watch([site, date], () => {
    said.value = ''
    warned.value = failed.value = null
  })
  /** For when they can be there. */
  const send = (n: Nearby, answer?: PromiseAnswer) =>
    act(async () => {
      const [at, waits] = [site.value, waiting()]
      warned.value = null
      if (!waits) return void (await call(n))
      const place = {
        technicianId: n.technicianId,
        startAt: quarter(n.arriveAt),
        durationSeconds: waits.durationSeconds,
        crewIds: waits.crewIds,
      }
      try {
        await board.place(waits, place, answer !== undefined, answer)
      } catch (error) {
        const refused = answer ? null : refusedBy(error)
        if (!refused) throw error
        if (site.value === at) warned.value = { ...refused, by: n }
        return
      }
      if (site.value === at)
        said.value = `${n.name.split(' ')[0]} has it for ${session.time(place.startAt)}.`
      await shown()
    })
  const call = ({ technicianId, arriveAt }: Nearby) =>
    navigateTo({
      path: '/calls/new',
      query: {
        date: session.today,
        technician: technicianId,
        customer: customerId(),
        site: site.value!,
        start: session.time(quarter(arriveAt)),
      },
    })
  return { said, warned, failed, send }
}
