import { ref, watch, type Ref } from 'vue'
import { useSession } from '~/stores/session'

/** A day that is today until somebody chooses another one: over midnight it turns with the clock. */
export function useToday(): Ref<string> {
  const session = useSession()
  const day = ref(session.today)
  watch(
    () => session.today,
    (now, before) => {
      if (day.value === before) day.value = now
    },
  )
  return day
}
