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
  // The address changes under a page that stays: a link, Back.
  watch(said, (now) => {
    if (!wanted.has(name)) filter.value = now
  })
  watch(filter, (now) => {
    if (now === said() && !wanted.has(name)) return
    if (!wanted.size) void nextTick(write)
    wanted.set(name, now === usual ? undefined : now)
  })
  async function write() {
    const query = { ...router.currentRoute.value.query, ...Object.fromEntries(wanted) }
    await router.replace({ query })
    wanted.clear()
    // What was typed while the address changed.
    if (filter.value !== said()) {
      wanted.set(name, filter.value === usual ? undefined : filter.value)
      await write()
    }
  }
  return filter
}
