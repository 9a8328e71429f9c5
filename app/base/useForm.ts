// One form: what it began with, what was typed, its one act, and what of it was refused at which field.
import { computed, inject, provide, reactive, ref, type InjectionKey } from 'vue'
import type { Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'

/** What `Form`, `Field`, `Notice` and `ActButton` know of the form that they stand in. */
export interface FormState {
  readonly values: object
  readonly busy: boolean
  readonly problem: Problem | null
  /** something was typed that is not kept yet */
  readonly unkept: boolean
  /** the sentence for the first of some fields that is wrong */
  wrong: (...names: string[]) => string
  /** a field says where its sentence will stand, and where it no longer will */
  place: (name: string) => () => void
  /** what is wrong and has no field to stand at */
  readonly unplaced: Problem | null
}
const FORM: InjectionKey<FormState> = Symbol('form')
export const provideForm = (form: FormState) => provide(FORM, form)
/** The form that a part stands in, or none. */
export const formAround = (): FormState | null => inject(FORM, null)

/** Which sentences have a field to stand at. */
function usePlaces(problem: () => Problem | null) {
  const places = reactive(new Map<string, number>())
  const place = (name: string) => {
    places.set(name, (places.get(name) ?? 0) + 1)
    return () => void places.set(name, places.get(name)! - 1)
  }
  const unplaced = computed(() => {
    const now = problem()
    return now?.errors.length && now.errors.every((e) => places.get(e.path)) ? null : now
  })
  return { place, unplaced }
}

/** Values of their own, which nobody else changes: what is typed is data. */
const plain = <T>(data: T): T => JSON.parse(JSON.stringify(data)) as T

/**
 * A form that begins with some values. What is sent counts as kept; what is typed while it is on its way
 * does not.
 * @example
 * const form = useForm({ reason: '' })
 * const save = () => form.send(() => call('…', { body: form.values }))
 */
export function useForm<Values extends object>(begins: Values) {
  const values = reactive(plain(begins)) as Values
  const kept = ref(JSON.stringify(values))
  const { busy, problem, act } = useAct()
  const { place, unplaced } = usePlaces(() => problem.value)
  const changed = computed(() => JSON.stringify(values) !== kept.value)
  let begun = 0
  /** Begins anew: with other values, or with those that stand in it as the ones that are kept. */
  function begin(next: Partial<Values> = {}) {
    begun++
    Object.assign(values, plain(next))
    kept.value = JSON.stringify(values)
  }
  /** What it is about changed elsewhere: fields that nobody touched follow, what was typed stays. */
  function follow(next: Values) {
    const before = JSON.parse(kept.value) as Values
    const same = (key: keyof Values) => JSON.stringify(values[key]) === JSON.stringify(before[key])
    for (const key of Object.keys(next) as (keyof Values)[])
      if (same(key)) values[key] = plain(next[key])
    kept.value = JSON.stringify({ ...values, ...plain(next) })
  }
  /** Does its act once; what was in it then is kept after that. `after` is what it begins anew with: where something was typed meanwhile, that stays. */
  const send = <T>(
    work: () => Promise<T>,
    after: (sent: Values) => Partial<Values> = () => ({}),
  ): Promise<T | undefined> =>
    act(async () => {
      const [sent, before] = [plain(values) as Values, begun]
      const answer = await work()
      // A form that is about something else by now is left as it is.
      if (begun !== before) return answer
      kept.value = JSON.stringify(sent)
      follow({ ...sent, ...after(sent) })
      return answer
    })
  return reactive({
    values,
    busy,
    problem,
    changed,
    /** Not while it is on its way: what follows upon an act may leave the page. */
    unkept: computed(() => changed.value && !busy.value),
    unplaced,
    place,
    wrong: (...names: string[]) => names.map((name) => problem.value?.at(name)).find(Boolean) ?? '',
    begin,
    follow,
    send,
    /** another act of the same form, which keeps nothing of it */
    act,
  })
}
