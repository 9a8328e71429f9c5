// What a list is filtered by stands in the address: after Back, a reload or on another's screen it shows the same.
import { nextTick, ref, watch, type Ref } from 'vue'
import { useRouter } from 'vue-router'

/** What is to stand in the address, of several filters that change at once. */
const wanted = new Map<string, string | undefined>()

/**
 * One filter of a page, by its name in the address; its usual value is left out there.
 * @example const state = useFilter<'' | 'open' | 'paid'>('state')
 */
export function useFilter<T extends string = string>(name: string, usual = '' as T): Ref<T> {
  const route = useRoute()
  const router = useRouter()
  const said = () => (typeof route.query[name] === 'string' ? (route.query[name] as T) : usual)
  const filter = ref(said()) as Ref<T>
  /** What was put into the address from here: it comes back while somebody types on. */
  const ours = new Set<T>()
  // The address changes under a page that stays: a link, Back.
  watch(said, (now) => {
    if (!ours.has(now)) filter.value = now
    else if (now === filter.value) ours.clear()
  })
  watch(filter, (now) => {
    if (now === said()) return void wanted.delete(name)
    ours.add(now)
    if (!wanted.size) void nextTick(write)
    wanted.set(name, now === usual ? undefined : now)
  })
  function write(): void {
    if (!wanted.size) return
    const query = { ...router.currentRoute.value.query, ...Object.fromEntries(wanted) }
    wanted.clear()
    void router.replace({ query })
  }
  return filter
}
