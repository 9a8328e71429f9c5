// Whether this window is shown round, and which places it has seen; kept, so that a page that is loaded again goes on.
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { TOUR_STOPS } from './stops'

const KEPT = 'tour'
/** the places that were seen; nothing while nobody is shown round */
const seen = ref<readonly string[] | null>(null)
function keep(places: readonly string[] | null) {
  seen.value = places
  if (places) localStorage.setItem(KEPT, JSON.stringify(places))
  else localStorage.removeItem(KEPT)
}
/** What was kept; what somebody else wrote there is as if there were nothing. */
function read(): string[] | null {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEPT) ?? 'null')
    return Array.isArray(kept) ? kept.filter((one) => typeof one === 'string') : null
  } catch {
    return null
  }
}
export function useTour() {
  const begin = () => keep([])
  const leave = () => keep(null)
  /** The next place; after the last one it is over. */
  function pass(place: string) {
    const places = [...(seen.value ?? []), place]
    keep(place === TOUR_STOPS.at(-1)!.place ? null : places)
  }
  /** A place is shown again. */
  const back = (place: string) => keep((seen.value ?? []).filter((one) => one !== place))
  return { seen, begin, leave, pass, back }
}
/** In the frame of a page: goes on where it was, and begins at an address that asks for it. */
export function useTourHere() {
  const route = useRoute()
  const look = () => {
    seen.value = read()
  }
  /** Another window is shown round, too: both know how far. */
  const hear = ({ key }: StorageEvent) => {
    if (key === KEPT) look()
  }
  onMounted(() => {
    window.addEventListener('storage', hear)
    const { tour, ...query } = route.query
    if (tour === undefined) return look()
    keep([])
    // Loaded again, it goes on instead of beginning anew.
    void navigateTo({ path: route.path, query, hash: route.hash }, { replace: true })
  })
  onBeforeUnmount(() => window.removeEventListener('storage', hear))
  return { seen }
}
/** Whoever signs out leaves no tour to whoever comes next. */
export const forgetTour = () => keep(null)
