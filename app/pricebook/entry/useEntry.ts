// One entry of the book: loaded, typed, tried while it is typed, kept in one act. What is typed stays, whoever else changes it.
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { guardLeaving } from '~/base/leaving'
import { provideForm, useFormAbout, type useForm } from '~/base/useForm'
import { usualTaxClass } from '~~/core/pricebook/usualTaxClass'
import type { Answer } from '~~/shared/api'
import { call, newId, type Problem } from '~/lib/api'
import type { Found } from '~/lib/book'
import { dataUrl } from '~/lib/dataUrl'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import { blankEntry, bodyOf, formOf, pricedOf, type Entry, type EntryForm } from './entryForm'

/** How long typing rests before its price is tried. */
const TRY_AFTER_MS = 150
export type Tried = Answer<'tryPrice'>

/** What the price would be, worked out while it is typed; an answer that was overtaken is dropped. */
function useTried(id: string, form: EntryForm, ready: () => boolean) {
  const tried = ref<Tried | null>(null)
  const odd = ref('')
  let turn = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  const forget = () => {
    turn++
    tried.value = null
  }
  async function attempt() {
    const mine = ++turn
    const got = await call('tryPrice', { body: { id, ...pricedOf(form) } }).catch(
      (error: Problem) => error,
    )
    if (mine !== turn) return
    odd.value = got instanceof Error ? got.message : ''
    if (!(got instanceof Error)) tried.value = got
  }
  watch(
    () => JSON.stringify(pricedOf(form)),
    () => {
      clearTimeout(timer)
      if (form.kind === 'assembly' && !form.parts.length) tried.value = null
      else if (ready()) timer = setTimeout(() => void attempt(), TRY_AFTER_MS)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => clearTimeout(timer))
  return { tried, odd, forget }
}
/** What a new entry begins with: it is taxed as goods, its work is done at the first rate. */
const usualOf = (rules: Answer<'pricing'>) => ({
  taxClass: usualTaxClass(rules.taxClasses, 'goods') ?? '',
  labourId: rules.labour[0]?.id ?? null,
})

/** The entry as it is kept, nothing of one that is new, and the rules of the book. */
function useKept(id: string, fresh: () => boolean) {
  const { data: rules } = useAnswer('pricing', undefined, SHOWS.book)
  const { data, problem, refresh } = useAnswer('priceEntry', () =>
    fresh() ? null : { params: { id } },
  )
  return { rules, entry: data, problem, refresh }
}

export function useEntry(id: string, fresh: () => boolean) {
  const owns = computed(() => useSession().may('pricebook.change'))
  const { rules, entry, problem, refresh } = useKept(id, fresh)
  const typed = useFormAbout(() => entry.value, formOf, refresh, {
    blank: blankEntry(),
    draft: `entry ${fresh() ? 'new' : id}`,
  })
  provideForm(typed)
  const form = typed.values
  const { tried, odd, forget } = useTried(
    id,
    form,
    () => owns.value && (fresh() || typed.version() > 0),
  )
  guardLeaving(() => typed.unkept, typed.discard)
  // What was tried before belongs to what was there before.
  watch(() => entry.value?.version, forget)
  watch(
    rules,
    (r) => {
      if (!fresh() || !r || form.taxClass) return
      typed.begin(usualOf(r))
      typed.takeUp('entry new')
    },
    { immediate: true },
  )
  const keep = () =>
    typed.keep(async (version) => {
      const kept = await call('keepPriceEntry', { params: { id }, body: bodyOf(form, version) })
      if (fresh()) await navigateTo(`/price-book/${id}`, { replace: true })
      else entry.value = kept
    })
  return {
    ...{ entry, rules, problem, refresh, owns, form, typed, tried, odd, keep },
    addParts: partsInto(form),
    ...entryActs(id, entry, typed, refresh),
  }
}
/** Puts entries of the book in: parts into a task, anything but assemblies into an assembly; none twice. */
const partsInto = (form: EntryForm) => (entries: Found[]) => {
  const fits = (e: Found) => (form.kind === 'task' ? e.kind === 'part' : e.kind !== 'assembly')
  for (const e of entries.filter(fits))
    if (!form.parts.some((part) => part.partId === e.id))
      form.parts.push({
        partId: e.id,
        code: e.code,
        name: e.name,
        kind: e.kind,
        quantity: '1',
        price: e.price,
      })
}
/** What is done beside what is typed, which stays as it is. */
function entryActs(
  id: string,
  entry: { value: Entry | null },
  { act }: Pick<ReturnType<typeof useForm>, 'act'>,
  refresh: () => Promise<void>,
) {
  const keepPicture = (data: string) =>
    act(async () => {
      const body = { version: entry.value!.version, data }
      entry.value = await call('keepPricePicture', { params: { id }, body })
    })
  return {
    keepPicture,
    /** Nothing but that: what is typed beside it is not kept by it. */
    retire: () =>
      act(async () => {
        const now = entry.value!
        const body = bodyOf({ ...formOf(now), retired: !now.retired }, now.version)
        entry.value = await call('keepPriceEntry', { params: { id }, body })
      }),
    choosePicture: async ([file]: File[]) => {
      if (file) await keepPicture(await dataUrl(file))
    },
    takeHours: () =>
      act(async () => {
        const seconds = entry.value!.hours!.proposedSeconds!
        await call('takeHours', { body: { id: newId(), entries: [{ id, seconds }] } })
        await refresh()
      }),
  }
}
/** Amounts of the book in the company's currency, and shares. */
export function useFigures() {
  const session = useSession()
  const percents = new Intl.NumberFormat(session.locale, {
    style: 'percent',
    maximumFractionDigits: 1,
  })
  return {
    amount: (major: string | null) => (major === null ? '–' : session.figure(major)),
    percent: (fraction: string | null) =>
      fraction === null ? '' : percents.format(Number(fraction)),
  }
}
