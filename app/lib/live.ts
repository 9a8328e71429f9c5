// Live changes: one event stream for the window; screens say what they want to do when something changed.
import { onBeforeUnmount, onMounted, ref } from 'vue'

const listeners = new Set<() => void>()
/** Who wants to know that a van moved: far more often than that somebody did something. */
const watchers = new Set<() => void>()
export const connected = ref(true)
let source: EventSource | null = null
let timer: ReturnType<typeof setTimeout> | null = null
function tell() {
  // Several changes of one act arrive together: ask once.
  timer ??= setTimeout(() => {
    timer = null
    for (const listener of listeners) listener()
  }, 25)
}
function open() {
  if (source) return
  source = new EventSource('/api/v1/live')
  source.addEventListener('change', tell)
  source.addEventListener('moved', () => watchers.forEach(w => w()))
  source.addEventListener('hello', () => {
    if (!connected.value) tell()
    connected.value = true
  })
  source.onerror = () => { connected.value = false }
}
export function closeLive() {
  source?.close()
  source = null
}
function patiently(refresh: () => void, ms: number) {
  let waiting: ReturnType<typeof setTimeout> | undefined
  return () => {
    waiting ??= setTimeout(() => {
      waiting = undefined
      refresh()
    }, ms)
  }
}
function listen(to: Set<() => void>, refresh: () => void) {
  onMounted(() => {
    to.add(refresh)
    open()
  })
  onBeforeUnmount(() => to.delete(refresh))
}
/** `patience` in ms: what stands at the edge of the screen lets the question of its middle go first. */
export const onLive = (refresh: () => void, patience = 0) => listen(listeners, patience ? patiently(refresh, patience) : refresh)
export const onMoved = (refresh: () => void) => listen(watchers, refresh)
