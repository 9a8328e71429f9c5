// The day that a view of the schedule shows: the address says it, so that it can be walked to, kept and sent.
import { computed } from 'vue'
import { useSession } from '~/stores/session'

export function useScheduleDate() {
  const session = useSession()
  const route = useRoute()
  const date = computed(() =>
    typeof route.query.date === 'string' ? route.query.date : session.today,
  )
  /** whether this person moves visits, or only looks */
  const may = computed(() => session.may('dispatch.plan'))
  return { session, route, date, may }
}
