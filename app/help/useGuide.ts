// The guide, fetched when it is first asked for: its pages, the page of this screen, and what finds them.
import { computed, shallowRef } from 'vue'
import { searchGuide, type GuidePage } from '~~/core/text/guidePages'

export function useGuide() {
  const pages = shallowRef<readonly GuidePage[]>([])
  const isLost = shallowRef(false)
  const fetchPages = () =>
    import('#build/help').then(
      ({ GUIDE }) => void (pages.value = GUIDE),
      () => void (isLost.value = true),
    )
  void fetchPages()
  const find = computed(() => searchGuide(pages.value))
  const pageOf = (name: string) => pages.value.find((page) => page.name === name)
  return { pages, isLost, find, pageOf }
}
/** The name of the help page of a screen. */
export const nameOf = (route: { name?: unknown }): string => String(route.name ?? 'index')
