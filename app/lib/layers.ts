// What stands over the page owns the keys: shortcuts of what lies beneath do nothing while it is open, and the browser's Back closes it before it
// leaves the page. On a phone that is the only such key.
import { inject, onBeforeUnmount, provide, watch, type InjectionKey } from 'vue'
import { useRouter, type Router } from 'vue-router'

interface Layer {
  close: () => void
}
/** From the lowest to the topmost; empty where nothing stands over the page. */
const layers: Layer[] = []
const LAYER: InjectionKey<Layer> = Symbol('layer')
const answering = new WeakSet<Router>()
/** Lets Back close the topmost layer. */
function answerBack(router: Router): void {
  if (answering.has(router)) return
  answering.add(router)
  let isPopped = false
  // The router says nothing of why it is asked to go somewhere; its history does, in the same moment.
  router.options.history.listen(() => (isPopped = true))
  router.beforeEach(() => {
    if (!isPopped || !layers.length) return true
    layers.at(-1)!.close()
    return false
  })
  router.afterEach(() => void (isPopped = false))
}

/** Makes a part of the screen the owner of the keys while it is open. */
export function useLayer(open: () => boolean, close: () => void): void {
  const mine: Layer = { close }
  answerBack(useRouter())
  provide(LAYER, mine)
  const takeOff = () => {
    const at = layers.indexOf(mine)
    if (at >= 0) layers.splice(at, 1)
  }
  watch(
    open,
    (is) => {
      // The key that closes it is still its own for whoever hears of it later.
      if (!is) setTimeout(() => open() || takeOff(), 0)
      else if (!layers.includes(mine)) layers.push(mine)
    },
    { immediate: true, flush: 'sync' },
  )
  onBeforeUnmount(() => setTimeout(takeOff, 0))
}
/** The layer that a part stands in, or null for the page. */
export const layerAround = (): Layer | null => inject(LAYER, null)
/** Something stands over the page. */
export const isCovered = (): boolean => layers.length > 0
export const ownsKeys = (layer: Layer | null): boolean => (layers.at(-1) ?? null) === layer
