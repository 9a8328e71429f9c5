// One visit on the phone: loaded, kept live, and what is done on it. Every act answers with the visit or its work order as it is then.
import { computed, ref } from 'vue'
import type { Answer, Body } from '~~/shared/api'
import { ask } from '~/base/leaving'
import { call, newId, type Problem } from '~/lib/api'
import type { Found } from '~/lib/book'
import { scaledPicture } from '~/lib/scaledPicture'
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
    /** Marks a line as done, or as not done after all. */
    toggleDone: ({ id: lineId, version, done }: Line) =>
      change(() => call('changeLine', { params: { id: lineId }, body: { version, done: !done } })),
    /** Puts back what was taken out. */
    putBack: ({ id: lineId, version }: Pick<Line, 'id' | 'version'>) =>
      change(() =>
        call('changeLine', { params: { id: lineId }, body: { version, removed: false } }),
      ),
    chargeTime: () =>
      change(() => call('chargeTime', { params: { id: workId() }, body: { lineId: newId() } })),
    explainTime: (seconds: number, reason: string) =>
      change(() => call('explainTime', { params: { id: workId() }, body: { seconds, reason } })),
  }
}

/** What is being written, which is kept before the clock goes on. */
function useWriting() {
  const writing = new Set<() => Promise<unknown>>()
  return {
    keepFirst(write: () => Promise<unknown>) {
      writing.add(write)
      return () => void writing.delete(write)
    },
    keepAll: () => Promise.all([...writing].map((write) => write())),
  }
}
/** Photos go one after the other, beside whatever else is done meanwhile. */
function usePhotos(workId: () => string, refresh: () => Promise<void>) {
  const { problem, act } = useAct()
  const sending = ref(0)
  async function addPhotos(files: readonly File[]) {
    sending.value += files.length
    for (const file of files) {
      await act(async () => {
        const body = { id: newId(), data: await scaledPicture(file) }
        await call('addPhoto', { params: { id: workId() }, body })
        await refresh()
      }, 'wait')
      sending.value--
    }
  }
  return { addPhotos, sending, unsent: problem }
}

const askAboutDay = (text: string) =>
  ask({ title: 'Another day', text, yes: 'Begin it now', no: 'Not this one' })

export function useFieldVisit(id: string) {
  const { data, problem, refresh } = useAnswer('fieldVisit', () => ({ params: { id } }))
  const { busy, problem: failed, act } = useAct()
  const work = computed(() => data.value?.workOrder ?? null)
  const workId = () => work.value!.id
  const take = (now: FieldVisit) => {
    data.value = now
  }
  const { keepFirst, keepAll } = useWriting()
  /** Does something that answers with the work order, and shows it so; true once it is done. */
  const change = (ask: () => Promise<Work>, whenBusy: 'drop' | 'wait' = 'drop') =>
    act(async () => {
      takeWork(await ask())
      return true
    }, whenBusy)
  function takeWork(workOrder: Work) {
    if (data.value) data.value = { ...data.value, workOrder }
  }
  const clock = (what: ClockAct) =>
    act(async () => {
      await keepAll()
      const press = (otherDay: boolean) =>
        call('clock', { params: { id }, body: { act: what, otherDay } })
      data.value = await press(false).catch(async (error: Problem) => {
        // Planned for another day: it may be the wrong one.
        if (error.code !== 'other_day' || !(await askAboutDay(error.message))) throw error
        return press(true)
      })
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
  return {
    ...{ data, work, problem, busy, failed, refresh, act },
    ...{ take, takeWork, keepFirst, change, clock, askFurther, beginQuote },
    ...lineActs(id, workId, change),
    ...usePhotos(workId, refresh),
  }
}
