// What a screen shows of the server: asked when it opens, again when something changed elsewhere; keeps the old while the new is on
// its way, and whatever is the same in both, so that only what changed is drawn anew. Who asks the same at once shares the answer.
import { computed } from 'vue'
import { useQuery, useQueryCache } from '@pinia/colada'
import type { Answer, RouteName } from '~~/shared/api'
import { takeAhead } from './ahead'
import { call, type Asked, type Problem } from './api'
import { keepEqual } from './keepEqual'
import { onLive, type Shows } from './live'
import { sayUnanswered } from './unanswered'

/** What names a question among all that were asked. */
type Key = readonly [string, ...unknown[]]
export interface Showing extends Shows {
  /** ms: what stands at the edge of the screen lets the question of its middle go first */
  patience?: number
}

/** Whom or what a question is about: what its path names. Another filter keeps the old rows while the new come; another customer does not. */
const aboutOf = ([name, input]: readonly unknown[]): string =>
  JSON.stringify([name, (input as { params?: unknown } | undefined)?.params])
/**
 * The answer to a question that may change: with its key it is asked anew. A key of null asks nothing.
 * What is written into `data` is the answer of an act, newer than any question still on its way.
 */
export function useAsked<T>(key: () => Key | null, load: () => Promise<T>, shows: Showing = {}) {
  const cache = useQueryCache()
  // The cache tells questions apart by what they say, as JSON does.
  const named = () => JSON.parse(JSON.stringify(key() ?? ['nothing'])) as [string]
  const { data, error, refetch } = useQuery<T, Problem>({
    key: named,
    query: async () => {
      const before = cache.getQueryData<T>(named())
      return keepEqual(before, await load())
    },
    // The server draws from what it was given, and asks nothing.
    enabled: () => !import.meta.server && key() !== null,
    // Whoever opens a screen asks: what an earlier visit to it saw may be old, and is not shown.
    staleTime: 0,
    gcTime: 0,
    refetchOnReconnect: false,
    refetchOnWindowFocus: false,
    placeholderData: (before, entry) =>
      entry && aboutOf(entry.key) === aboutOf(named()) ? before : undefined,
  })
  /** Ends when what is shown is as new as it was asked for, also where a later question overtook this one. */
  let latest: Promise<unknown> = Promise.resolve()
  const refresh = async () => {
    latest = refetch()
    let seen
    do await (seen = latest)
    while (seen !== latest)
  }
  onLive(() => key() && void refresh(), shows.patience, shows)
  const problem = computed(() => error.value)
  let isTaken = false
  sayUnanswered(problem, refresh, () => isTaken)
  return {
    data: computed({
      get: () => data.value ?? null,
      set: (answered) => {
        cache.cancelQueries({ key: named(), exact: true })
        cache.setQueryData(named(), keepEqual(data.value, answered as T))
      },
    }),
    /** Whoever takes it says it at its place; where nobody does, the window says it. */
    get problem() {
      isTaken = true
      return problem
    },
    refresh,
  }
}

/**
 * The answer of a route, for as long as a screen shows it.
 * @example const { data, problem } = useAnswer('customer', () => ({ params: { id } }))
 */
export function useAnswer<N extends RouteName>(
  name: N,
  asked: () => Asked<N>[0] | null = () => ({}) as Asked<N>[0],
  shows: Showing = {},
) {
  return useAsked<Answer<N>>(
    () => {
      const input = asked()
      return input === null ? null : [name, input]
    },
    () => {
      const input = asked() as Asked<N>[0]
      const isBare = !input || !Object.keys(input).length
      return (isBare && takeAhead(name)) || call(name, ...([input] as unknown as Asked<N>))
    },
    shows,
  )
}
