// The browser's Back closes what stands over the page, before it leaves the page: on a phone it is the only such key.
import { onBeforeUnmount } from 'vue'
import { useRouter } from 'vue-router'

/** What Back would close, the topmost last. */
const open: (() => void)[] = []
let isPopped = false
const routers = new WeakSet<object>()
/** Answers Back while something is open; says so by what it is told. */
export function useBackKey(close: () => void): (isOpen: boolean) => void {
  const router = useRouter()
  if (!routers.has(router)) {
    routers.add(router)
    // The router says nothing of why it is asked to go somewhere; its history does, in the same moment.
    router.options.history.listen(() => (isPopped = true))
    router.beforeEach(() => {
      if (!isPopped || !open.length) return true
      open.at(-1)!()
      return false
    })
    router.afterEach(() => void (isPopped = false))
  }
  const tell = (isOpen: boolean) => {
    const at = open.indexOf(close)
    if (isOpen && at < 0) open.push(close)
    else if (!isOpen && at >= 0) open.splice(at, 1)
  }
  onBeforeUnmount(() => tell(false))
  return tell
}
