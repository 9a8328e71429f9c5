// Leaves the window to whoever comes next: nothing of this person stays in it.
import { ElMessage } from 'element-plus'
import { discardAll, mayLeaveWindow } from '~/base/leaving'
import { forgetKeptCalls } from '~/stores/call'
import { forgetFilter } from '~/stores/scheduleFilter'
import { useSession } from '~/stores/session'

export function useSignOut() {
  const session = useSession()
  return async () => {
    if (!(await mayLeaveWindow())) return
    try {
      await session.signOut()
      forgetKeptCalls()
      forgetFilter()
      discardAll()
    } catch (error) {
      return void ElMessage({ type: 'error', message: (error as Error).message })
    }
    // Opened anew, so that no undo, filter or half-typed price is left in it.
    await navigateTo('/sign-in', { external: true })
  }
}
