// Whoever opened a row and goes back finds the list where they left it.
import { nextTick, onBeforeUnmount, type Ref } from 'vue'
import { useRouter } from 'vue-router'

interface Place {
  rows: number
  top: number
}
const places = new Map<string, Place>()
/** Whether this page is come back to: there is one ahead of it. */
const isBack = () => Boolean((window.history.state as { forward?: string } | null)?.forward)
function scrolledBy(element: HTMLElement | null): Element | null {
  return element?.closest('main') ?? null
}

/** @param rows how many are shown now */
export function useListPlace(list: Readonly<Ref<HTMLElement | null>>, rows: () => number) {
  const address = useRoute().fullPath
  const place = isBack() ? places.get(address) : undefined
  const router = useRouter()
  const stop = router.beforeEach((_, from) => {
    const top = scrolledBy(list.value)?.scrollTop ?? 0
    places.set(from.fullPath, { rows: rows(), top })
  })
  onBeforeUnmount(stop)
  const scroll = async () => {
    await nextTick()
    scrolledBy(list.value)?.scrollTo({ top: place!.top })
  }
  return { kept: place && { rows: place.rows, scroll } }
}
