// A call's parts: whom the words mean, who is new, what is promised, what speaks against a time, how it ends.
import { flushPromises, mount } from '@vue/test-utils'
import { beforeAll, describe, expect, it, vi } from 'vitest'
import { ref, type Ref } from 'vue'
import StandingQuestions from '~/calls/what/StandingQuestions.vue'
import { usePlacementCheck, type Warning } from '~/calls/when/usePlacementCheck'
import { PROMISES, usePromise, type Technician } from '~/calls/when/usePromise'
import EndCall from '~/calls/EndCall.vue'
import MatchList from '~/calls/who/MatchList.vue'
import NewCaller from '~/calls/who/NewCaller.vue'
import { useMatches } from '~/calls/who/useMatches'
import { catalogueOfRoutes } from '~/lib/api'
import { callDraft } from '~~/shared/calls'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import { answers } from './server'
import { within } from './within'

const begun = (over: Partial<Draft> = {}) =>
  ref({ ...(callDraft.getDefault() as Draft), ...over }) as Ref<Draft>
// What is sent is checked by its schema; the schemas are fetched once.
beforeAll(() => catalogueOfRoutes())
const match = (name: string) => ({
  customerId: name,
  siteId: null,
  name,
  phone: '(607) 555-0142',
  place: 'Otterfall',
  why: ['name'],
  prospect: false,
  stopWork: '',
  late: 0,
  open: 0,
  owed: { amount: '0.00', currency: 'USD' },
})

describe('whom the words mean', () => {
  it('is asked while it is typed, from two signs on', async () => {
    const asked = answers({ body: { items: [match('Marrow')] } })
    const draft = begun()
    const { matches } = within(() => useMatches(draft, () => true))
    draft.value.query = 'm'
    await flushPromises()
    expect(asked).toHaveLength(0)
    draft.value.query = 'ma'
    await flushPromises()
    expect(matches.value.map((m) => m.name)).toEqual(['Marrow'])
  })
  it('is not asked once somebody is chosen', async () => {
    const asked = answers({ body: { items: [] } })
    const draft = begun()
    within(() => useMatches(draft, () => false))
    draft.value.query = 'marrow'
    await flushPromises()
    expect(asked).toHaveLength(0)
  })
  it('is the answer to the last question, however late another one comes', async () => {
    const waiting: ((response: Response) => void)[] = []
    vi.stubGlobal('fetch', () => new Promise((done) => waiting.push(done)))
    const answer = (name: string) =>
      new Response(JSON.stringify({ items: [match(name)] }), { status: 200 })
    const draft = begun()
    const { matches } = within(() => useMatches(draft, () => true))
    draft.value.query = 'ma'
    await flushPromises()
    draft.value.query = 'mar'
    await flushPromises()
    waiting[1]!(answer('Marrow'))
    await flushPromises()
    waiting[0]!(answer('Mabbott'))
    await flushPromises()
    expect(matches.value.map((m) => m.name)).toEqual(['Marrow'])
  })
  it('says that nobody could be looked for, which is not that nobody was found', async () => {
    answers({ status: 503, body: { code: 'busy', detail: 'Too many are asking.' } })
    const draft = begun()
    const { matches, unseen } = within(() => useMatches(draft, () => true))
    draft.value.query = 'marrow'
    await flushPromises()
    expect([unseen.value, matches.value]).toEqual(['Too many are asking.', []])
  })
  it('is gone through by the arrows, down to somebody new and no further', async () => {
    answers({ body: { items: [match('Marrow'), match('Mabbott')] } })
    const draft = begun({ query: 'ma' })
    const { at, step } = within(() => useMatches(draft, () => true))
    await flushPromises()
    for (let i = 0; i < 5; i++) step(1)
    expect(at.value).toBe(2)
    for (let i = 0; i < 5; i++) step(-1)
    expect(at.value).toBe(0)
  })
  it('is listed with what warns, and with somebody new at the end', async () => {
    const matches = [{ ...match('Marrow'), stopWork: 'unpaid', prospect: true }]
    const list = mount(MatchList, { props: { query: 'marr', matches, at: 1 } })
    const [first, last] = list.findAll('[role=option]')
    expect(first!.text()).toMatch(/Marrow.*prospect.*stop work/)
    expect(last!.attributes('aria-selected')).toBe('true')
    await first!.trigger('mousedown')
    await last!.trigger('mousedown')
    expect(list.emitted('choose')?.[0]?.[0]).toMatchObject({ customerId: 'Marrow' })
    expect(list.emitted('new')).toHaveLength(1)
  })
})
describe('somebody new', () => {
  const drawn = (draft: Ref<Draft>) =>
    mount(NewCaller, {
      props: {
        modelValue: draft.value,
        country: 'US',
        wrong: (path: string) => (path === 'line1' ? 'Where is the site?' : ''),
      },
    })
  it('is shown who is perhaps the same, a moment after it is typed', async () => {
    answers({
      body: { items: [{ ...match('T. Oduya'), reasons: ['same number'] }] },
    })
    const page = drawn(begun({ isNew: true, name: 'Tunde Oduya' }))
    await vi.waitFor(() => expect(page.text()).toContain('Perhaps known already'))
    await page
      .findAll('button')
      .find((b) => b.text() === 'It is them')!
      .trigger('click')
    expect(page.emitted('choose')).toEqual([['T. Oduya', null]])
  })
  it('is refused at the field, and keeps what was typed', async () => {
    const errors = [{ path: 'email', message: 'This is no mail address.' }]
    answers({ status: 422, body: { code: 'invalid', detail: 'No.', errors } })
    const page = drawn(begun({ isNew: true, name: 'Ada', email: 'ada@' }))
    await page
      .findAll('button')
      .find((b) => b.text() === 'Keep this customer')!
      .trigger('click')
    await vi.waitFor(() => expect(page.text()).toContain('mail address'))
    expect(page.props('modelValue').email).toBe('ada@')
    expect(page.emitted('choose')).toBeUndefined()
  })
  it('says what the booking wants of a field', async () => {
    const page = drawn(begun({ isNew: true }))
    await vi.waitFor(() => expect(page.text()).toContain('Where is the site?'))
  })
})
describe('what is promised', () => {
  const zone = () => {
    useSession().me = { company: { timeZone: 'UTC', locale: 'en-US' } } as never
  }
  const working = [{ from: '2026-11-24T07:30:00.000Z', to: '2026-11-24T16:30:00.000Z' }]
  const promised = (over: Partial<Draft>, technician: Technician | null = null) => {
    zone()
    const draft = begun({ start: '09:15', ...over })
    return { draft, ...within(() => usePromise(draft, () => technician)) }
  }
  it.each([
    ['two', ['09:00', '11:00']],
    ['morning', ['07:30', '12:00']],
    ['afternoon', ['12:00', '16:30']],
    ['day', ['07:30', '16:30']],
    ['exact', ['09:15', '09:30']],
    ['none', ['', '']],
  ] as const)('%s is a window, and is known again', (kind, window) => {
    const p = promised({}, { working } as never)
    p.promise(kind)
    expect([p.draft.value.promiseFrom, p.draft.value.promiseTo]).toEqual(window)
    expect(p.kind.value).toBe(kind)
  })
  it('is each of those that can be chosen', () =>
    expect(PROMISES.map((p) => p.value)).toEqual([
      'two',
      'morning',
      'afternoon',
      'day',
      'exact',
      'own',
      'none',
    ]))
  it('takes the usual hours while nobody is chosen', () => {
    const p = promised({})
    p.promise('day')
    expect([p.draft.value.promiseFrom, p.draft.value.promiseTo]).toEqual(['08:00', '17:00'])
  })
  it('of one’s own keeps what stands there', () => {
    const p = promised({ promiseFrom: '10:00', promiseTo: '15:00' })
    expect(p.kind.value).toBe('own')
    p.promise('own')
    // Another time leaves it alone.
    p.draft.value.start = '13:00'
    p.propose()
    expect([p.draft.value.promiseFrom, p.draft.value.promiseTo]).toEqual(['10:00', '15:00'])
  })
  it('of two hours ends before midnight', () => {
    const p = promised({ start: '22:30' })
    p.propose()
    expect([p.draft.value.promiseFrom, p.draft.value.promiseTo]).toEqual(['22:00', '23:59'])
  })
  it('needs a start for two hours', () => {
    const p = promised({ start: '', promiseFrom: '10:00', promiseTo: '12:00' })
    p.propose()
    expect(p.draft.value.promiseFrom).toBe('10:00')
  })
})
describe('what speaks against a time', () => {
  const INES = '01890a5d-ac96-774b-bcce-b302099a8057'
  const CALL = '01890a5d-ac96-774b-bcce-b302099a8058'
  const checked = (draft: Ref<Draft>, startAt: number | null) => {
    const warnings = ref<Warning[]>([])
    const asked = { startAt: () => startAt, skills: () => ['wells'] }
    return { warnings, ...within(() => usePlacementCheck(CALL, draft, asked, warnings)) }
  }
  it('is asked of a person at a time', async () => {
    const asked = answers({ body: { warnings: [{ code: 'clash', text: 'Ines is elsewhere' }] } })
    const draft = begun()
    const { warnings } = checked(draft, 0)
    draft.value.technicianId = INES
    await vi.waitFor(() => expect(warnings.value).toHaveLength(1))
    expect(asked[0]!.body).toMatchObject({ callId: CALL, technicianId: INES, skills: ['wells'] })
    draft.value.technicianId = null
    await flushPromises()
    expect(warnings.value).toEqual([])
  })
  it('is nothing without a time', async () => {
    const asked = answers({ body: { warnings: [] } })
    const draft = begun()
    checked(draft, null)
    draft.value.technicianId = INES
    await flushPromises()
    expect(asked).toHaveLength(0)
  })
  it('says that it could not be looked up', async () => {
    answers({ status: 503, body: { code: 'busy', detail: 'Too many.' } })
    const draft = begun()
    const { unchecked } = checked(draft, 0)
    draft.value.technicianId = INES
    await vi.waitFor(() => expect(unchecked.value).toBe(true))
  })
})
describe('the firm’s own questions', () => {
  const question = (id: string, over: object) => ({
    id,
    text: `${id}?`,
    kind: 'text' as const,
    choices: [],
    position: 0,
    retired: false,
    version: 1,
    ...over,
  })
  it('are asked but for those that were retired; an answer is kept with its question', async () => {
    const page = mount(StandingQuestions, {
      props: {
        questions: [question('Water', { kind: 'yes_no' }), question('Old', { retired: true })],
        modelValue: [],
      },
    })
    expect(page.text()).not.toContain('Old?')
    await page.findAll('button')[0]!.trigger('click')
    expect(page.emitted('update:modelValue')?.at(-1)).toEqual([
      [{ questionId: 'Water', question: 'Water?', answer: 'yes' }],
    ])
  })
  it('take an answer back when it is given again', async () => {
    const page = mount(StandingQuestions, {
      props: {
        questions: [question('Water', { kind: 'yes_no' })],
        modelValue: [{ questionId: 'Water', question: 'Water?', answer: 'yes' }],
      },
    })
    await page.findAll('button')[0]!.trigger('click')
    expect(page.emitted('update:modelValue')?.at(-1)).toEqual([[]])
  })
})
describe('a call that is not booked', () => {
  const ended = (state: 'put_off' | 'declined', save = vi.fn(() => Promise.resolve())) => {
    const page = mount(EndCall, {
      props: { callId: 'c1', state, people: [], save },
      attachTo: document.body,
    })
    return { page, save }
  }
  const text = () => document.querySelector('.el-dialog')?.textContent ?? ''
  it('is kept first, then ended with its reason', async () => {
    const asked = answers({ body: {} })
    const { page, save } = ended('declined')
    await flushPromises()
    const why = document.querySelector<HTMLInputElement>('.el-dialog input')!
    why.value = 'too far away'
    why.dispatchEvent(new Event('input'))
    document.querySelector('form')!.dispatchEvent(new Event('submit'))
    await vi.waitFor(() => expect(page.emitted('ended')).toHaveLength(1))
    expect(save).toHaveBeenCalledOnce()
    expect(asked[0]).toMatchObject({
      path: '/calls/c1/end',
      body: { state: 'declined', reason: 'too far away', callBackOn: null },
    })
  })
  it('asks for the day and the person where it is rung back', async () => {
    ended('put_off')
    await flushPromises()
    expect(text()).toContain('On which day')
    expect(text()).toContain('Who rings')
  })
})
