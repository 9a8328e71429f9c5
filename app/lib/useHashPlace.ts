// The place on a page that its address names: parts of a page come one after the other, so that it may be there only later.
import { onBeforeUnmount, onMounted, watch } from 'vue'

const PATIENCE_MS = 5_000
export function useHashPlace(): void {
  const route = useRoute()
  let stop = () => {}
  function go(hash: string) {
    stop()
    if (!hash) return
    const find = () => document.getElementById(hash.slice(1))
    const show = () => find()?.scrollIntoView()
    // What comes above it pushes it down: until somebody takes the page in hand, it is kept in sight.
    const seen = new MutationObserver(show)
    const ended = setTimeout(() => stop(), PATIENCE_MS)
    stop = () => {
      seen.disconnect()
      clearTimeout(ended)
      for (const act of ['wheel', 'keydown', 'pointerdown']) removeEventListener(act, stop)
    }
    for (const act of ['wheel', 'keydown', 'pointerdown']) addEventListener(act, stop)
    seen.observe(document.body, { childList: true, subtree: true })
    show()
  }
  onMounted(() => go(route.hash))
  watch(() => route.hash, go)
  onBeforeUnmount(() => stop())
}
