// What the customer is told: the morning, the afternoon, the day, two hours, or the very time.
import { computed, ref, type Ref } from 'vue'
import { localTime, localToInstant } from '~~/core/time/zone'
import { twoHoursFrom } from '~~/core/visits/visitPromise'
import { MINUTE } from '~~/core/time/units'
import type { Answer } from '~~/shared/api'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'

export type Technician = Answer<'schedule'>['technicians'][number]
export const PROMISES = [
  { value: 'two', label: 'two hours' },
  { value: 'morning', label: 'morning' },
  { value: 'afternoon', label: 'afternoon' },
  { value: 'day', label: 'all day' },
  { value: 'exact', label: 'exact time' },
  { value: 'own', label: 'from … to' },
  { value: 'none', label: 'nothing yet' },
] as const
type Kind = (typeof PROMISES)[number]['value']
type Window = readonly [from: string, to: string]
const NOON = '12:00'
const EXACT_MINUTES = 15
const later = (at: string, minutes: number) =>
  localTime(localToInstant('2026-01-01', at, 'UTC') + minutes * MINUTE, 'UTC')
const twoHours = (start: string): Window | null =>
  /^\d\d:/.test(start) ? twoHoursFrom(start) : null

export function usePromise(draft: Ref<Draft>, technician: () => Technician | null) {
  const session = useSession()
  /** the hours of whoever goes, or the usual ones */
  const edges = computed((): Window => {
    const working = technician()?.working ?? []
    const [first, last] = [working[0], working.at(-1)]
    return [first ? session.time(first.from) : '08:00', last ? session.time(last.to) : '17:00']
  })
  const isOwn = ref(false)
  /** The window that a kind of promise comes to; nothing where it needs a start, or is typed. */
  function windowOf(kind: Kind): Window | null {
    const [from, to] = edges.value
    const { start } = draft.value
    const windows: Record<Kind, Window | null> = {
      two: twoHours(start),
      morning: [from, NOON],
      afternoon: [NOON, to],
      day: [from, to],
      exact: start ? [start, later(start, EXACT_MINUTES)] : null,
      own: null,
      none: ['', ''],
    }
    return windows[kind]
  }
  function promise(kind: Kind) {
    isOwn.value = kind === 'own'
    const window = windowOf(kind)
    if (window) Object.assign(draft.value, { promiseFrom: window[0], promiseTo: window[1] })
  }
  /** Which of them what stands there is. */
  const kind = computed((): Kind => {
    if (isOwn.value) return 'own'
    const { promiseFrom: from, promiseTo: to } = draft.value
    if (!from) return 'none'
    const fits = (one: Kind) => {
      const window = windowOf(one)
      return window?.[0] === from && window[1] === to
    }
    return (['morning', 'afternoon', 'day', 'exact', 'two'] as const).find(fits) ?? 'own'
  })
  /** Follows a time that was chosen; a window that somebody typed stays. */
  function propose() {
    if (!isOwn.value) promise('two')
  }
  return { kind, isOwn, promise, propose }
}
