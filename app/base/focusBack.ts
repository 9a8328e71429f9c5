// Where the focus goes when what stood over the page is gone: to what it was opened from, also where that could not be pressed for a moment meanwhile
// and lost it.
import { onBeforeUnmount, watch } from 'vue'
import { isCovered } from '~/lib/layers'

const OVER = '[role="dialog"], .el-overlay, .el-popper'
/** What somebody was at last on the page itself. */
let last: HTMLElement | null = null
/** Begins with the app: what opened the first dialog is known, too. */
export function watchFocus(): void {
  document.addEventListener('focusin', ({ target }) => {
    // The library focuses the page itself where it knows nothing better.
    if (target instanceof HTMLElement && target !== document.body && !target.closest(OVER))
      last = target
  })
}
/** What closes stays for a moment, and the focus in it; the library gives it back in its own moment, or leaves it on nothing. */
const MOST_FRAMES = 30
function giveBack(frames = MOST_FRAMES): void {
  requestAnimationFrame(() => {
    const at = document.activeElement ?? document.body
    const isOnNothing = at === document.body
    if (isOnNothing && !isCovered()) last?.focus()
    else if ((isOnNothing || at.closest(OVER)) && frames) giveBack(frames - 1)
  })
}
/** For what stands over the page while it is open, or for as long as it is there. */
export function useFocusBack(open: () => boolean): void {
  watch(open, (is) => is || giveBack())
  onBeforeUnmount(() => giveBack())
}
