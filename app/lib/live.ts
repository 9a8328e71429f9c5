// Live changes: one event stream for the window; screens say what they want to do when something changed.
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { TOLD_TO_ALL } from '~~/shared/live'

/** What changed: its kind, and the things concerned; nothing is known after the line was down, and everything is old. */
export interface Change {
  subject: string
  id: string
  workOrderId: string | null
}
type Listener = (changes: readonly Change[] | null) => void
const listeners = new Set<Listener>()
/** Who wants to know that a van moved: far more often than that somebody did something. */
const watchers = new Set<() => void>()
export const connected = ref(true)
let source: EventSource | null = null
/** The oldest event that an answer may know nothing of, of those that came before the stream: it begins after it. */
let since = Infinity
/** An answer was read when this was the last event. */
export function readAsOf(event: number): void {
  if (!source && event) since = Math.min(since, event)
}
let timer: ReturnType<typeof setTimeout> | null = null
let changes: Change[] | null = []
/** Without a change, everything is old. */
function tell(change?: Change) {
  if (!change) changes = null
  else changes?.push(change)
  // Several changes of one act arrive together: ask once.
  timer ??= setTimeout(() => {
    const told = changes
    timer = null
    changes = []
    for (const listener of listeners) listener(told)
  }, 25)
}
/** Everything that is shown is old: the day turned, or somebody signed in again. */
export function askAllAnew(): void {
  tell()
  if (listeners.size) open()
}
const REOPEN_MS = 10_000
function open() {
  if (source) return
  source = new EventSource(`/api/v1/live${since < Infinity ? `?after=${since}` : ''}`)
  since = Infinity
  source.addEventListener('change', (event) =>
    tell(JSON.parse((event as MessageEvent<string>).data) as Change),
  )
  source.addEventListener('reset', () => tell())
  source.addEventListener('moved', () => watchers.forEach((w) => w()))
  source.addEventListener('hello', () => {
    if (!connected.value) tell()
    connected.value = true
  })
  source.onerror = () => {
    connected.value = false
    // The browser tries again by itself, unless it was refused.
    if (source?.readyState !== EventSource.CLOSED) return
    source = null
    setTimeout(() => listeners.size && open(), REOPEN_MS)
  }
}
export function closeLive() {
  source?.close()
  source = null
}
function patiently(refresh: () => void, ms: number) {
  let waiting: ReturnType<typeof setTimeout> | undefined
  return () => {
    waiting ??= setTimeout(() => {
      waiting = undefined
      refresh()
    }, ms)
  }
}
function listen<L>(to: Set<L>, listener: L) {
  onMounted(() => {
    to.add(listener)
    open()
  })
  onBeforeUnmount(() => to.delete(listener))
}
/** What a screen shows, so that it asks again only after changes that can touch it; everything where it says nothing. */
export interface Shows {
  /** kinds of things on the screen */
  subjects?: readonly string[]
  /** the things, or work orders, that the screen is about */
  about?: () => readonly (string | null | undefined)[]
}
const DAY = [
  'visit',
  'work',
  'call',
  'person',
  'plan',
  'roads',
  'settings',
  'customer',
  'quote',
] as const
/** What the screens of one subject show. */
export const SHOWS = {
  setUp: { subjects: ['settings', 'person'] },
  book: { subjects: ['prices', 'settings'] },
  day: { subjects: DAY },
  calls: { subjects: ['call', 'quote', 'work'] },
  callsCounted: { subjects: ['call', 'quote', 'work', 'invoice', 'payment', 'customer'] },
  money: { subjects: ['invoice', 'payment', 'collection', 'customer', 'message', 'import'] },
  tasks: { subjects: ['task'] },
  waiting: {
    subjects: [
      ...[
        'call',
        'visit',
        'work',
        'invoice',
        'payment',
        'quote',
        'message',
        'customer',
        'task',
        'ask',
      ],
    ],
  },
  run: {
    subjects: [
      ...['call', 'visit', 'work', 'invoice', 'payment', 'quote', 'customer', 'plan', 'import'],
    ],
  },
} as const satisfies Record<string, Shows>
const touches = (shows: Shows, change: Change): boolean => {
  // Whoever is told no more than that something changed asks again, where it can be what the screen shows.
  if (change.subject === 'something') return !shows.subjects?.every((s) => TOLD_TO_ALL.includes(s))
  if (shows.subjects && !shows.subjects.includes(change.subject)) return false
  const ids = shows.about?.().filter(Boolean) ?? []
  return ids.length === 0 || ids.includes(change.id) || ids.includes(change.workOrderId)
}
/** `patience` in ms: what stands at the edge of the screen lets the question of its middle go first. */
export function onLive(refresh: () => void, patience = 0, shows: Shows = {}) {
  const ask = patience ? patiently(refresh, patience) : refresh
  listen<Listener>(listeners, (told) => {
    if (told === null || told.some((change) => touches(shows, change))) ask()
  })
}
export const onMoved = (refresh: () => void) => listen(watchers, refresh)
