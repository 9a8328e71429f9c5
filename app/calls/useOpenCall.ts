// A call is opened: as it was kept, or begun from a customer's page or an empty time of the schedule.
import { onMounted, ref } from 'vue'
import type { LocationQuery } from 'vue-router'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { entriesNamed } from '~/lib/book'
import { useCall, type Draft } from '~/stores/call'
import { useAsking } from '~/lib/unanswered'
import { useSession } from '~/stores/session'
import type { ReadLine } from './what/useReadOut'
import { readEntries } from './what/useUsualCharges'

const text = (value: LocationQuery[string] | undefined) => (typeof value === 'string' ? value : '')
/** The firm's questions, sources and people, as a call needs them. */
function useCallSetUp() {
  const setUp = ref<Answer<'setUp'> | null>(null)
  const ask = useAsking()
  async function loadSetUp(): Promise<void> {
    setUp.value = await ask(() => call('setUp'), loadSetUp)
  }
  return { setUp, loadSetUp }
}
const NOBODY = {
  siteId: null,
  contactId: null,
  equipmentId: null,
  suppliedLineId: null,
  speaking: '',
}
/** Who calls: looked up, and taken only while the call is still about them. */
function useCaller() {
  const store = useCall()
  const chosen = ref<Answer<'caller'> | null>(null)
  const ask = useAsking()
  let turn = 0
  async function find(
    id: string,
    take: (found: Answer<'caller'>) => void = () => {},
  ): Promise<void> {
    const mine = ++turn
    const found = await ask(
      () => call('caller', { params: { id } }),
      () => mine === turn && find(id, take),
    )
    if (!found || mine !== turn) return
    chosen.value = found
    take(found)
  }
  const choose = (customerId: string, siteId: string | null) =>
    find(customerId, ({ sites, name, phone }) => {
      const only = sites.length === 1 ? sites[0]!.id : null
      Object.assign(store.draft, {
        customerId,
        siteId: siteId ?? only,
        query: name,
        phone: store.draft.phone || phone,
        isNew: false,
      })
    })
  function clear() {
    turn++
    // Whoever could not be had is asked about no more.
    void ask(
      () => Promise.resolve(null),
      () => {},
    )
    chosen.value = null
    Object.assign(store.draft, { ...NOBODY, customerId: null, query: '', phone: '' })
  }
  return { chosen, find, choose, clear }
}

export function useOpenCall(opened: (asked: LocationQuery) => Promise<void>) {
  const [session, store, route] = [useSession(), useCall(), useRoute()]
  const caller = useCaller()
  const { chosen } = caller
  const { setUp, loadSetUp } = useCallSetUp()
  const files = ref<Answer<'call'>['files']>([])
  const lines = ref<ReadLine[]>([])
  const ready = ref(false)
  /** why the call cannot be opened */
  const problem = ref<{ message: string } | null>(null)
  /** what was read out and cannot be looked up now: it stays in the draft */
  const unread = ref<Draft['entries']>([])
  /** What was read out, out of the browser's own book; an entry that is gone from it is left out. */
  async function readAgain(): Promise<ReadLine[]> {
    const { entries } = store.draft
    if (!entries.length) return []
    const ids = entries.map((e) => e.entryId)
    const known = await entriesNamed(session.me!.person.id, ids)
    const found = new Map(known.found.map((entry) => [entry.id, entry]))
    if (!known.isSure) unread.value = entries.filter((e) => !found.has(e.entryId))
    return entries.flatMap(({ entryId, quantity }) => {
      const entry = found.get(entryId)
      return entry ? [{ ...entry, quantity }] : []
    })
  }
  /** A call that begins reads out what is usual; one that was kept says what is missing. */
  async function readLines(fresh: boolean): Promise<ReadLine[]> {
    const { entries, leftOut, kind } = store.draft
    if (!fresh || entries.length || leftOut.length) return readAgain()
    const { found } = await readEntries(session.kindOf(kind)?.charges ?? [])
    return found
  }
  function beginAt(asked: LocationQuery) {
    const { date, start, technician } = asked
    const at = { date: text(date), start: text(start), technicianId: text(technician) }
    const said = Object.fromEntries(Object.entries(at).filter(([, v]) => v))
    Object.assign(store.draft, said)
    // Loaded again, what was chosen stays.
    if (!store.draft.problem) store.draft.durationSeconds = session.secondsOf(store.draft.kind)
  }
  onMounted(async () => {
    const asked = route.query
    if (route.params.id === 'new') {
      const path = `/calls/${newId()}`
      return void navigateTo({ path, query: { ...asked, fresh: 1 } }, { replace: true })
    }
    const [opening] = await Promise.allSettled([
      store.open(String(route.params.id), Boolean(asked.fresh), session.today),
      loadSetUp(),
    ])
    if (opening.status === 'rejected') return void (problem.value = opening.reason as Error)
    files.value = opening.value?.files ?? []
    if (asked.hand) store.origin = 'hand'
    if (asked.fresh) beginAt(asked)
    await opened(asked)
    if (!chosen.value && store.draft.customerId) await caller.find(store.draft.customerId)
    lines.value = await readLines(Boolean(asked.fresh))
    ready.value = true
  })
  return { chosen, setUp, files, lines, unread, ready, problem, caller }
}
