// One visit on the phone: loaded, kept live, and what is done on it. Every act answers with the visit or its work order as it is then.
import { computed, ref, watch } from 'vue'
import type { Answer, Body } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import type { Found } from '~/lib/book'
import { dataUrl } from '~/lib/dataUrl'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'

export type FieldVisit = Answer<'fieldVisit'>
export type Work = Answer<'workOrder'>
export type Line = Work['lines'][number]
type WantedLine = Body<'addLines'>['lines'][number]
export type LineChange = Omit<Body<'changeLine'>, 'version'>
export type ClockAct = Body<'clock'>['act']

const fromBook = (entry: Found): WantedLine => ({
  id: newId(),
  entryId: entry.id,
  quantity: '1',
  kind: 'other',
  done: true,
})

/** What is typed stays until it is kept: no answer to anything else writes over it, and keeping it holds up no other button. */
function useFindings(id: string, visit: () => FieldVisit | null, kept: (now: FieldVisit) => void) {
  const findings = ref('')
  const typed = ref(false)
  const { problem, act } = useAct()
  watch(
    visit,
    (now) => {
      if (now && !typed.value) findings.value = now.findings
    },
    { immediate: true },
  )
  const write = () =>
    act(async () => {
      if (!typed.value) return
      const words = findings.value
      const body = { version: visit()!.version, findings: words }
      const now = await call('findings', { params: { id }, body })
      // What was typed since is not kept yet.
      typed.value = findings.value !== words
      kept(now)
    }, 'wait')
  return { findings, typed, unwritten: problem, write }
}

/** What is done to the lines and the time of its work order; each answers with the work order. */
function lineActs(
  id: string,
  workId: () => string,
  change: (ask: () => Promise<Work>, whenBusy?: 'wait') => Promise<unknown>,
) {
  const addLines = (lines: WantedLine[]) =>
    change(
      () => call('addLines', { params: { id: workId() }, body: { visitId: id, lines } }),
      'wait',
    )
  return {
    addEntries: (entries: Found[]) => addLines(entries.map(fromBook)),
    addOwn: (line: Omit<WantedLine, 'done'>) => addLines([{ ...line, done: true }]),
    addBasket: (items: Body<'addBasket'>['items']) =>
      change(() => call('addBasket', { params: { id: workId() }, body: { visitId: id, items } })),
    changeLine: (line: Line, values: LineChange) =>
      change(() =>
        call('changeLine', { params: { id: line.id }, body: { version: line.version, ...values } }),
      ),
    chargeTime: () =>
      change(() => call('chargeTime', { params: { id: workId() }, body: { lineId: newId() } })),
    explainTime: (seconds: number, reason: string) =>
      change(() => call('explainTime', { params: { id: workId() }, body: { seconds, reason } })),
  }
}

export function useFieldVisit(id: string) {
  const { data, problem, refresh } = useAnswer('fieldVisit', () => ({ params: { id } }))
  const { busy, problem: failed, act } = useAct()
  const work = computed(() => data.value?.workOrder ?? null)
  const workId = () => work.value!.id
  const words = useFindings(
    id,
    () => data.value,
    (now) => {
      data.value = now
    },
  )
  /** Does something that answers with the work order, and shows it so; true once it is done. */
  const change = (ask: () => Promise<Work>, whenBusy: 'drop' | 'wait' = 'drop') =>
    act(async () => {
      const workOrder = await ask()
      if (data.value) data.value = { ...data.value, workOrder }
      return true
    }, whenBusy)
  const clock = (what: ClockAct) =>
    act(async () => {
      // What was typed a moment ago is kept first.
      await words.write()
      data.value = await call('clock', { params: { id }, body: { act: what } })
    })
  const addPhoto = (file: File) =>
    act(async () => {
      const body = { id: newId(), data: await dataUrl(file) }
      await call('addPhoto', { params: { id: workId() }, body })
      await refresh()
    })
  const askFurther = (note: string) =>
    act(async () => {
      const { version } = data.value!
      const body = { id: newId(), version, durationSeconds: 3600, note }
      await call('furtherVisit', { params: { id }, body })
      await refresh()
      return true
    })
  const beginQuote = () =>
    act(async () => {
      const made = await call('beginQuote', { body: { id: newId(), workOrderId: workId() } })
      await navigateTo(`/field/quotes/${made.id}`)
    })
  const shown = { data, work, problem, busy, failed, refresh, act, change }
  return {
    ...shown,
    ...words,
    ...lineActs(id, workId, change),
    clock,
    addPhoto,
    askFurther,
    beginQuote,
  }
}
