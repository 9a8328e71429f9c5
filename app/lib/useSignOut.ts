// Leaves the window to whoever comes next: nothing of this person stays in it.
import { discardAll, mayLeaveWindow } from '~/base/leaving'
import { forgetKeptCalls } from '~/stores/keptCalls'
import { forgetFilter } from '~/stores/scheduleFilter'
import { useSession } from '~/stores/session'
import { forgetTour } from '~/tour/useTour'
import { useAct } from './useAct'

export function useSignOut() {
  const session = useSession()
  const { act, problem } = useAct()
  const signOut = () =>
    act(async () => {
      if (!(await mayLeaveWindow())) return
      await session.signOut()
      forgetKeptCalls()
      forgetFilter()
      forgetTour()
      discardAll()
      // Opened anew, so that no undo, filter or half-typed price is left in it.
      await navigateTo('/sign-in', { external: true })
    })
  return { signOut, /** why it was not done */ problem }
}
