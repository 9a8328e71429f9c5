// What stands over the page owns the keys: shortcuts of what lies beneath do nothing while it is open.
import { inject, onBeforeUnmount, provide, shallowReactive, watch, type InjectionKey } from 'vue'

/** From the lowest to the topmost; empty where nothing stands over the page. */
const layers = shallowReactive<symbol[]>([])
const LAYER: InjectionKey<symbol> = Symbol('layer')

/** Makes a part of the screen the owner of the keys while it is open. */
export function useLayer(open: () => boolean): void {
  const mine = Symbol('layer')
  provide(LAYER, mine)
  const close = () => {
    const at = layers.indexOf(mine)
    if (at >= 0) layers.splice(at, 1)
  }
  // The key that closes it is still its own for whoever hears of it later.
  const closeSoon = () => setTimeout(() => open() || close(), 0)
  watch(
    open,
    (is) => {
      if (!is) closeSoon()
      else if (!layers.includes(mine)) layers.push(mine)
    },
    { immediate: true, flush: 'sync' },
  )
  onBeforeUnmount(() => setTimeout(close, 0))
}
/** The layer that a part stands in, or null for the page. */
export const layerAround = (): symbol | null => inject(LAYER, null)
export const ownsKeys = (layer: symbol | null): boolean => (layers.at(-1) ?? null) === layer
