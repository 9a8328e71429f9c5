// One form: what it began with, what was typed, what others made of it meanwhile, its one act, and what of it was refused at which field.
import {
  computed,
  effectScope,
  inject,
  provide,
  reactive,
  ref,
  shallowRef,
  watch,
  type InjectionKey,
} from 'vue'
import { Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { dropDraft, keepDraft, readDraft } from './drafts'
import { alike, changesIn, setAt, threeWay, valueAt } from './threeWay'

/** What `Form`, `Field`, `Notice` and `ActButton` know of the form that they stand in. */
export interface FormState {
  readonly values: object
  readonly busy: boolean
  readonly problem: Problem | null
  /** something was typed that is not kept yet */
  readonly unkept: boolean
  /** what it was left with, and takes up again */
  readonly takenUp: number | null
  /** what is typed survives the window */
  readonly isDraft: boolean
  /** the sentence for the first of some fields that is wrong */
  wrong: (...names: string[]) => string
  /** a field says where its sentence will stand, and where it no longer will */
  place: (name: string) => () => void
  /** what is wrong and has no field to stand at */
  readonly unplaced: Problem | null
  /** what somebody else made of it while it was typed over here */
  readonly meanwhile: ReadonlyMap<string, unknown>
  takeTheirs: (path: string) => void
  /** what was typed is left on purpose */
  discard: () => void
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

/** What stands in a form against what it began with, and against what others made of it meanwhile. */
function useTyped<Values extends object>(begins: Values) {
  const values = reactive(plain(begins)) as Values
  const kept = ref(JSON.stringify(values))
  const theirs = shallowRef<ReadonlyMap<string, unknown>>(new Map())
  const before = () => JSON.parse(kept.value) as Values
  function begin(next: Partial<Values> = {}) {
    Object.assign(values, plain(next))
    kept.value = JSON.stringify(values)
    theirs.value = new Map()
  }
  /** What it is about changed elsewhere. */
  function follow(next: Partial<Values>) {
    const now = plain(next)
    const merged = threeWay(before(), values, now)
    // What nobody changed since is still what they made of it.
    const still = [...theirs.value].filter(([path]) => !merged.theirs.has(path))
    Object.assign(values, merged.values)
    theirs.value = new Map([...still, ...merged.theirs])
    kept.value = JSON.stringify({ ...before(), ...now })
  }
  const meanwhile = computed(
    () =>
      new Map([...theirs.value].filter(([path, value]) => !alike(value, valueAt(values, path)))),
  )
  return {
    values,
    kept,
    before,
    begin,
    follow,
    changed: computed(() => !alike(before(), plain(values))),
    changes: () => changesIn(before(), values),
    meanwhile,
    takeTheirs: (path: string) => setAt(values, path, meanwhile.value.get(path)),
  }
}

/** Takes up what was typed about it before and never sent; keeps what is typed now until it is. */
function useDraft<Values extends object>(
  about: string,
  { values, before, kept, begin, follow, changed }: ReturnType<typeof useTyped<Values>>,
) {
  const draft = readDraft(about)
  if (draft) {
    const now = before()
    begin(draft.before as Values)
    Object.assign(values, draft.typed)
    follow(now)
  }
  const settle = () => {
    if (!changed.value) dropDraft(about)
    else keepDraft(about, { before: before(), typed: plain(values), at: Date.now() })
  }
  // At once: the window may be gone a moment later.
  watch([values, kept], settle, { flush: 'sync', deep: true })
  return { takenUp: draft && changed.value ? draft.at : null, settle }
}

/** The draft of a form, from the moment on when it is known what it is about. */
function useDrafts<Values extends object>(typed: ReturnType<typeof useTyped<Values>>) {
  const takenUp = ref<number | null>(null)
  const isDraft = ref(false)
  const scope = effectScope()
  let drafted: ReturnType<typeof useDraft> | undefined
  return {
    takenUp,
    isDraft,
    settleDraft: () => drafted?.settle(),
    /** What was typed of it before and never sent stands in it again. */
    takeUp(about: string) {
      isDraft.value = true
      drafted = scope.run(() => useDraft(about, typed))
      takenUp.value = drafted?.takenUp ?? null
    },
  }
}

/**
 * A form that begins with some values. What is sent counts as kept; what is typed while it is on its way
 * does not. With `draft`, a name for what it is about, what was typed survives until it is sent or left on purpose.
 * @example
 * const form = useForm({ reason: '' })
 * const save = () => form.send(() => call('…', { body: form.values }))
 */
export function useForm<Values extends object>(
  begins: Values,
  { draft }: { draft?: string | undefined } = {},
) {
  const typed = useTyped(begins)
  const { values, kept, changed, meanwhile } = typed
  const { takenUp, isDraft, takeUp, settleDraft } = useDrafts(typed)
  if (draft) takeUp(draft)
  const { busy, problem, act } = useAct()
  const { place, unplaced } = usePlaces(() => problem.value)
  let begun = 0
  /** Begins anew: with other values, or with those that stand in it as the ones that are kept. */
  function begin(next: Partial<Values> = {}) {
    begun++
    takenUp.value = null
    typed.begin(next)
  }
  /** What was in it when it was sent is kept now; what was typed since is not. */
  function settle(sent: Values, after: Partial<Values> = {}) {
    kept.value = JSON.stringify(sent)
    typed.follow({ ...sent, ...after })
    takenUp.value = null
    // What it stood in may be gone already, and its watches with it.
    settleDraft()
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
      if (begun === before) settle(sent, after(sent))
      return answer
    })
  return reactive({
    values,
    busy,
    problem,
    changed,
    takenUp,
    isDraft,
    meanwhile,
    changes: typed.changes,
    takeTheirs: typed.takeTheirs,
    /** Not while it is on its way: what follows upon an act may leave the page. */
    unkept: computed(() => changed.value && !busy.value),
    unplaced,
    place,
    wrong: (...names: string[]) => names.map((name) => problem.value?.at(name)).find(Boolean) ?? '',
    begin,
    takeUp,
    discard: () => begin(typed.before()),
    /** What it is about changed elsewhere: fields that nobody touched follow, what was typed stays. */
    follow: typed.follow,
    settle,
    send,
    /** another act of the same form, which keeps nothing of it */
    act,
  })
}

/** A thing that has a version: it says what a form about it was read with. */
interface Versioned {
  version: number
}
/**
 * A form about something that others change as well. What they change meanwhile stands in it at once, where nobody typed; beside what was typed
 * stands what they made of it. It is sent with the version that it shows.
 * @example
 * const form = useFormAbout(() => props.site, ({ name }) => ({ name }), refresh)
 * const keep = () => form.keep((version) => call('changeSite', { params, body: { version, ...form.changes() } }))
 */
export function useFormAbout<Thing extends Versioned, Values extends object>(
  thing: () => Thing | null | undefined,
  valuesOf: (thing: Thing) => Values,
  /** asks anew for what the thing is read from */
  refresh: () => Promise<unknown>,
  { draft, blank }: { draft?: string | undefined; blank?: Values } = {},
) {
  const first = thing()
  // Until the thing is there, and for one that is new, it is blank.
  const form = useForm<Values>(first ? valuesOf(first) : blank!, first ? { draft } : {})
  let version = first?.version ?? 0
  function follow() {
    const now = thing()
    if (now && !version) return began(now)
    // An answer that was under way when something newer came says nothing; what is on its way comes back as its own.
    if (!now || form.busy || now.version <= version) return
    ;({ version } = now)
    form.follow(valuesOf(now))
  }
  function began(now: Thing) {
    ;({ version } = now)
    form.begin(valuesOf(now))
    if (draft) form.takeUp(draft)
  }
  watch([thing, () => form.busy], follow)
  async function keep<T>(work: (version: number) => Promise<T>): Promise<T | undefined> {
    const answer = await form.send(() => work(version))
    if (form.problem?.code !== 'stale') return answer
    const before = version
    await refresh()
    follow()
    if (!thing()) form.problem = goneMeanwhile()
    // Where two changed different things, both are kept.
    return version !== before && !form.meanwhile.size ? form.send(() => work(version)) : undefined
  }
  return Object.assign(form, { keep, version: () => version })
}
const goneMeanwhile = () =>
  new Problem('It was taken out meanwhile. What you typed is still here, to be copied.', {
    status: 409,
    code: 'stale',
  })
