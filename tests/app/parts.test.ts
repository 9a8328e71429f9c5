// Further parts of the kit and of screens, each for what it promises: days, counts, files, choices of several, one line, questions, columns of a
// file, markups, own prices, the tray, the week, the run.
import { DOMWrapper, flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, nextTick, reactive, ref } from 'vue'
import Ask from '~/base/Ask.vue'
import Check from '~/base/Check.vue'
import CountInput from '~/base/CountInput.vue'
import DateInput from '~/base/DateInput.vue'
import FileInput from '~/base/FileInput.vue'
import HistoryTimeline from '~/base/HistoryTimeline.vue'
import { ask, asked, guardLeaving, leavingWithin, warnWindow } from '~/base/leaving'
import OneField from '~/base/OneField.vue'
import Radio from '~/base/Radio.vue'
import FileColumns from '~/components/base/FileColumns.vue'
import type { NuxtError } from '#app'
import ErrorPage from '~/error.vue'
import OfficeLayout from '~/layouts/office.vue'
import RunBand from '~/components/base/RunBand.vue'
import CustomFields from '~/components/settings/CustomFields.vue'
import OwnPrices from '~/customers/OwnPrices.vue'
import BoardTray from '~/dispatch/day/BoardTray.vue'
import WeekTabs from '~/dispatch/day/WeekTabs.vue'
import { timeAt } from '~/dispatch/day/steps'
import MarkupRules from '~/pricebook/rules/MarkupRules.vue'
import TimesOfDay from '~/pricebook/rules/TimesOfDay.vue'
import { routeOf, type Answer } from '~~/shared/api'
import { HISTORY_PAGE } from '~~/shared/schema'
import { INDEX, RUN } from '~/lib/officeIndex'
import { PERMISSIONS, permissionsOf, type Permission } from '~~/core/access/permissions'
import { useSession } from '~/stores/session'
import { dialog, press } from './hands'
import { sampleOf } from './sample'
import { bring, settle } from './screen'
import { answers, later } from './server'
import { onPage, router } from './within'

beforeEach(() => {
  bring({})
  useSession().me = {
    company: { locale: 'en-US', timeZone: 'America/New_York', currency: 'USD' },
    person: { may: ['collections.work'], name: 'Olive' },
    today: '2026-11-24',
    now: '2026-11-24T15:00:00Z',
    clockFixed: true,
  } as never
})
const body = () => new DOMWrapper(document.body)

describe('a check', () => {
  it('alone is yes or no', async () => {
    const page = mount(Check, { props: { modelValue: false } })
    await page.get('input').setValue(true)
    expect(page.emitted('update:modelValue')).toEqual([[true]])
  })
  it('of several adds itself to those that are taken, and takes itself out', async () => {
    const taken = ref<string[]>(['marsh'])
    const page = mount(() =>
      ['marsh', 'tarns'].map((value) =>
        h(Check<string>, {
          modelValue: taken.value,
          value,
          'onUpdate:modelValue': (now: unknown) => (taken.value = now as string[]),
        }),
      ),
    )
    const boxes = () => page.findAll('input')
    expect(boxes().map((box) => (box.element as HTMLInputElement).checked)).toEqual([true, false])
    await boxes()[1]!.setValue(true)
    expect(taken.value).toEqual(['marsh', 'tarns'])
    await boxes()[0]!.setValue(false)
    expect(taken.value).toEqual(['tarns'])
  })
  it('of several leaves the list that it was given as it is', async () => {
    const given = ['marsh']
    const page = mount(Check<string>, { props: { modelValue: given, value: 'tarns' } })
    await page.get('input').setValue(true)
    expect(given).toEqual(['marsh'])
    expect(page.emitted('update:modelValue')).toEqual([[['marsh', 'tarns']]])
  })
  it('without words beside it is read out all the same', () =>
    expect(mount(Check, { props: { label: 'Visit for Vane' } }).text()).toBe('Visit for Vane'))
})

describe('one of a few', () => {
  it('says which was chosen', async () => {
    const page = mount(Radio<boolean>, {
      props: { modelValue: false, value: true, name: 'drives' },
    })
    await page.get('input').setValue()
    expect(page.emitted('update:modelValue')).toEqual([[true]])
    expect(page.emitted('change')).toEqual([[true]])
  })
})

describe('a count', () => {
  it.each([
    ['7', 7],
    ['99', 20],
    ['-3', 0],
    ['2.6', 3],
  ])('typed as “%s” is %i within its bounds', async (text, count) => {
    const page = mount(CountInput, { props: { modelValue: 1, min: 0, max: 20 } })
    await page.get('input').setValue(text)
    await page.get('input').trigger('change')
    expect(page.emitted('update:modelValue')!.at(-1)).toEqual([count])
  })
})

describe('a day', () => {
  const drawn = async (text: string, props: object = {}) => {
    const day = ref<string | null>('2026-11-25')
    const page = mount(
      () =>
        h(DateInput, {
          modelValue: day.value,
          'onUpdate:modelValue': (now: string | null | undefined) => (day.value = now ?? null),
          ...props,
        }),
      { attachTo: document.body },
    )
    const input = page.get('input')
    await input.setValue(text)
    await input.trigger('change')
    await flushPromises()
    return day.value
  }
  it.each([
    ['Dec 4, 2026', '2026-12-04'],
    ['12/4', '2026-12-04'],
    ['tomorrow', '2026-11-25'],
    ['fri', '2026-11-27'],
    ['2026-12-01', '2026-12-01'],
  ])('typed as “%s” is %s', async (text, read) => expect(await drawn(text)).toBe(read))
  it('before the first that may be is not taken', async () =>
    expect(await drawn('Nov 1, 2026', { min: '2026-11-24' })).toBe('2026-11-25'))
  it('after the last that may be is not taken', async () =>
    expect(await drawn('Dec 24, 2026', { max: '2026-12-01' })).toBe('2026-11-25'))
})

describe('a file', () => {
  it('several that are chosen at once are handed on together', async () => {
    const page = mount(FileInput, {
      props: { label: 'Add pictures', accept: 'image/*', multiple: true },
    })
    const upload = page.findComponent({ name: 'ElUpload' })
    const onChange = upload.props('onChange') as (file: { raw: File }) => void
    const files = [new File(['a'], 'a.png'), new File(['b'], 'b.png')]
    for (const raw of files) onChange({ raw })
    await flushPromises()
    expect(page.emitted('choose')).toEqual([[files]])
    onChange({ raw: files[0]! })
    await flushPromises()
    expect(page.emitted('choose')![1]).toEqual([[files[0]]])
  })
})

describe('one line', () => {
  const drawn = (send: (text: string) => Promise<unknown>, props: object = {}) =>
    mount(OneField, { props: { label: 'A further source', act: 'Add', send, ...props } })
  it('is sent without blanks around it, and emptied once it is done', async () => {
    const sent: string[] = []
    const page = drawn((text) => Promise.resolve(sent.push(text)))
    await page.get('input').setValue('  radio ')
    await page.get('form').trigger('submit')
    await flushPromises()
    expect(sent).toEqual(['radio'])
    expect(page.get('input').element.value).toBe('')
  })
  it('stays where it is refused, with why', async () => {
    const page = drawn(() =>
      Promise.reject(Object.assign(new Error('There is one already.'), { errors: [] })),
    )
    await page.get('input').setValue('radio')
    await page.get('form').trigger('submit')
    await flushPromises()
    expect(page.get('input').element.value).toBe('radio')
    expect(page.text()).toContain('There is one already.')
  })
  it('that is empty cannot be sent, unless nothing is an answer', () => {
    const disabled = (props: object) =>
      drawn(() => Promise.resolve(), props)
        .get('button')
        .attributes('disabled') !== undefined
    expect([disabled({}), disabled({ optional: true })]).toEqual([true, false])
  })
})

describe('the one question', () => {
  const QUESTION = { title: 'Not kept yet', text: 'Leave it?', yes: 'Leave it', no: 'Stay here' }
  const drawn = () => mount(Ask, { attachTo: document.body })
  it.each([
    ['Leave it', true],
    ['Stay here', false],
  ])('“%s” answers %s, and it is gone', async (name, yes) => {
    const answer = ask(QUESTION)
    drawn()
    await settle()
    expect(dialog()!.text()).toContain('Leave it?')
    await press(name)
    expect(await answer).toBe(yes)
    expect(asked.value).toBeNull()
  })
  it('that another one comes after is answered with no', async () => {
    const first = ask(QUESTION)
    void ask({ ...QUESTION, title: 'Another' })
    expect(await first).toBe(false)
    asked.value!.answer(false)
  })
})

describe('an address of the office', () => {
  it.each([
    ['/invoices', 'dispatch', false],
    ['/invoices', 'books', true],
    ['/unpaid', 'dispatch', false],
    ['/work', 'dispatch', true],
    ['/calls/7', 'books', false],
    ['/calls/7', 'office', true],
  ] as const)('%s for %s: %s', async (path, role, opens) => {
    useSession().me!.person.may = permissionsOf(role)
    const one = { render: () => h('p') }
    router().addRoute({ path: '/calls/:id', meta: { may: 'calls.take' }, component: one })
    await router().push(path)
    const page = mount(OfficeLayout, { slots: { default: () => h('p', 'What stands there') } })
    await flushPromises()
    const said = ['What stands there', 'not for your role'].map((text) =>
      page.text().includes(text),
    )
    expect(said).toEqual([opens, !opens])
  })
})

describe('an address where nothing is, or a page that broke', () => {
  it.each([
    [404, 'There is nothing at this address', ['To the start']],
    [500, 'This page could not be shown', ['Ask again', 'To the start']],
  ])('%i is said, and leads on', async (statusCode, heading, ways) => {
    const clearError = vi.fn()
    vi.stubGlobal('clearError', clearError)
    const page = mount(ErrorPage, { props: { error: { statusCode } as NuxtError } })
    expect(page.get('h1').text()).toBe(heading)
    expect(page.findAll('button').map((button) => button.text())).toEqual(ways)
    await page.findAll('button').at(-1)!.trigger('click')
    expect(clearError).toHaveBeenCalledWith({ redirect: '/' })
  })
})

describe('a page that is left', () => {
  const guarded = (unkept: () => boolean, first?: () => Promise<unknown>) =>
    onPage(defineComponent(() => (guardLeaving(unkept, () => {}, first), () => h('p'))))
  it.each([
    [true, '/elsewhere'],
    [false, '/here'],
  ])('with something that is not kept asks first: %s', async (yes, where) => {
    const { leave, here } = await guarded(() => true)
    const { gone } = await leave()
    expect(here()).toBe('/here')
    asked.value!.answer(yes)
    await gone
    expect(here()).toBe(where)
  })
  it('waits for what is on its way, and asks only where that failed', async () => {
    const unkept = ref(true)
    const sent = later<void>()
    const { leave, here } = await guarded(
      () => unkept.value,
      () => sent.promise,
    )
    const { gone } = await leave()
    expect([asked.value, here()]).toEqual([null, '/here'])
    unkept.value = false
    sent.settle()
    await gone
    expect([asked.value, here()]).toEqual([null, '/elsewhere'])
  })
})

describe('what is not kept', () => {
  const event = () => new Event('beforeunload', { cancelable: true }) as BeforeUnloadEvent
  const guard = (unkept: () => boolean, within = false) =>
    mount(
      defineComponent({
        setup() {
          if (within) leavingWithin()
          return () => h(defineComponent(() => (guardLeaving(unkept), () => h('p'))))
        },
      }),
    )
  it.each([false, true])('warns when the window goes (in a dialog: %s)', (within) => {
    const unkept = ref(true)
    const page = guard(() => unkept.value, within)
    const going = event()
    warnWindow(going)
    expect(going.defaultPrevented).toBe(true)
    unkept.value = false
    const again = event()
    warnWindow(again)
    expect(again.defaultPrevented).toBe(false)
    page.unmount()
  })
  it('of a part that is gone is nobody’s', () => {
    guard(() => true).unmount()
    const going = event()
    warnWindow(going)
    expect(going.defaultPrevented).toBe(false)
  })
})

const ID = '01938f2e-0000-7000-8000-000000000001'
describe('a history', () => {
  const entry = (number: number, changes: Entry['changes'] = []) => ({
    ...{ id: number, at: '2026-11-24T15:00:00Z', who: 'Olive', text: `Entry ${number}` },
    changes,
  })
  type Entry = Answer<'workOrder'>['history'][number]
  const drawn = (entries: Entry[]) =>
    mount(HistoryTimeline, { props: { entries, of: 'workOrderEarlier', id: ID } })
  it('says what happened, when in the firm’s zone, who, and what it was before', () => {
    const page = drawn([entry(7, [{ what: 'title', from: 'Tap', to: 'Pump' }])])
    expect(page.text()).toContain('Entry 7')
    expect(page.text()).toContain('Tue, Nov 24 10:00 · Olive')
    expect(page.get('s').text()).toBe('Tap')
    expect(page.get('b').text()).toBe('Pump')
    expect(page.find('button').exists()).toBe(false)
  })
  it('loses nothing to newer entries, and is another one’s once its page is', async () => {
    answers({ body: { items: [entry(1)] } })
    const first = Array.from({ length: HISTORY_PAGE }, (_, i) => entry(HISTORY_PAGE + 1 - i))
    const page = drawn(first)
    await page.get('button').trigger('click')
    await flushPromises()
    await page.setProps({ entries: [entry(HISTORY_PAGE + 2), ...first.slice(0, -1)] })
    expect(page.findAll('li')).toHaveLength(HISTORY_PAGE + 2)
    await page.setProps({ entries: [entry(7)], id: 'another' })
    expect(page.findAll('li').map((li) => li.text())).toEqual([expect.stringContaining('Entry 7')])
  })
  it('goes on to what was before those that are shown, each once', async () => {
    const asked = answers({ body: { items: [entry(1)] } })
    const page = drawn(Array.from({ length: HISTORY_PAGE }, (_, i) => entry(HISTORY_PAGE + 1 - i)))
    await page.get('button').trigger('click')
    await flushPromises()
    expect(page.findAll('li')).toHaveLength(HISTORY_PAGE + 1)
    expect(page.findAll('li').at(-1)!.text()).toContain('Entry 1')
    expect(page.find('button').exists()).toBe(false)
    expect(asked.map(({ path }) => path)).toEqual([`/work-orders/${ID}/history?before=2`])
  })
})

describe('the columns of a file', () => {
  type Means = 'name' | 'phone'
  const drawn = async () => {
    const columns = ref<(Means | null)[]>(['name', null])
    const page = mount(() =>
      h(FileColumns<Means>, {
        modelValue: columns.value,
        'onUpdate:modelValue': (now: unknown) => (columns.value = now as (Means | null)[]),
        head: ['Customer', 'Tel'],
        rows: [
          ['Vane', '0101'],
          ['Okonjo', '0102'],
        ],
        fields: ['name', 'phone'] as Means[],
        label: (field: Means) => field,
      }),
    )
    await settle()
    return { columns, page }
  }
  it('stand beside the first rows, so that one sees what they are', async () => {
    const { page } = await drawn()
    expect(page.text()).toContain('0101')
    expect(page.text()).toContain('0102')
  })
  it('mean nothing twice: what one means, no other may', async () => {
    const { page } = await drawn()
    const [first, second] = page.findAllComponents({ name: 'Choice' })
    const disabled = (choice: typeof first) =>
      (choice!.props('options') as { value: Means | null; disabled?: boolean }[])
        .filter((option) => option.disabled)
        .map(({ value }) => value)
    expect([disabled(first), disabled(second)]).toEqual([[], ['name']])
  })
})

describe('fields of the firm’s own', () => {
  const FIELDS = [
    { id: 'a', name: 'Well depth', kind: 'number', choices: [] },
    { id: 'b', name: 'Drilled on', kind: 'date', choices: [] },
    { id: 'c', name: 'Water', kind: 'choice', choices: ['soft', 'hard'] },
    { id: 'd', name: 'Fenced', kind: 'yes_no', choices: [] },
    { id: 'e', name: 'Drilled by', kind: 'text', choices: [] },
  ]
  const drawn = () => mount(CustomFields, { props: { fields: FIELDS, modelValue: { e: 'Vane' } } })
  it('are asked for as what they hold', () => {
    const page = drawn()
    const options = page
      .findAllComponents({ name: 'Choice' })
      .map((choice) => (choice.props('options') as { value: string }[]).map(({ value }) => value))
    expect(options).toEqual([
      ['', 'soft', 'hard'],
      ['', 'yes', 'no'],
    ])
    expect(page.findAllComponents({ name: 'DateInput' })).toHaveLength(1)
  })
  it('are filled one at a time, and leave the others as they are', async () => {
    const page = drawn()
    await page.findComponent({ name: 'FigureInput' }).vm.$emit('change', '42')
    expect(page.emitted('update:modelValue')).toEqual([[{ e: 'Vane', a: '42' }]])
  })
})

describe('prices that a customer alone has', () => {
  const entry = (id: string, name: string) => ({
    ...(sampleOf(routeOf('searchPriceBook').answer!) as { items: object[] }).items[0]!,
    id,
    name,
    price: '95.00',
  })
  const drawn = (items: object[]) => {
    bring({ says: { searchPriceBook: { items, next: null, total: items.length } } })
    const prices = reactive<{ entryId: string; name: string; price: string; bookPrice: string }[]>(
      [],
    )
    const page = mount(OwnPrices, {
      props: { modelValue: prices as never },
      attachTo: document.body,
    })
    const find = async (words: string) => {
      await page.get('input[placeholder]').setValue(words)
      await settle()
    }
    return { page, prices, find }
  }
  it('are found in the book, and begin with what it asks', async () => {
    const { prices, find } = drawn([entry('a', 'Call-out')])
    await find('call')
    await press('Call-out · 95.00')
    expect(prices).toEqual([{ entryId: 'a', name: 'Call-out', price: '95.00', bookPrice: '95.00' }])
  })
  it('are there once for each entry', async () => {
    const { prices, find } = drawn([entry('a', 'Call-out')])
    for (const words of ['call', 'call-out']) {
      await find(words)
      await press('Call-out · 95.00')
    }
    expect(prices).toHaveLength(1)
  })
  it('are not looked for by one sign', async () => {
    const { find } = drawn([])
    await find('c')
    expect(bring.sent()).toEqual([])
  })
})

describe('markups', () => {
  type Markups = {
    scope: string
    name: string
    tiers: { fromCost: string; multiplier: string }[]
  }[]
  const drawn = () => {
    const markups = reactive<Markups>([
      { scope: 'all', name: '', tiers: [{ fromCost: '0', multiplier: '2.2' }] },
      { scope: 'supplier', name: 'Wells & Co', tiers: [{ fromCost: '0', multiplier: '1.4' }] },
    ])
    mount(MarkupRules, {
      props: { modelValue: markups as never, categories: ['Pumps'], wrong: () => '' },
      attachTo: document.body,
    })
    return markups
  }
  it('of all parts stay, others are taken out by name', async () => {
    const markups = drawn()
    await press('Take out the markup of Wells & Co')
    expect(markups.map(({ scope }) => scope)).toEqual(['all'])
  })
  it('have a further step that begins with the multiplier before it', async () => {
    const markups = drawn()
    await body()
      .findAll('button')
      .find((one) => one.text() === '+ step')!
      .trigger('click')
    expect(markups[0]!.tiers).toEqual([
      { fromCost: '0', multiplier: '2.2' },
      { fromCost: '', multiplier: '2.2' },
    ])
  })
  it('keep one step at least', () => {
    drawn()
    expect(body().findAll('[aria-label^="Take out step"]')).toHaveLength(0)
  })
  it.each([
    ['Markup of a category', 'category'],
    ['Markup of a supplier', 'supplier'],
  ])('“%s” adds one', async (name, scope) => {
    const markups = drawn()
    await press(name)
    expect(markups.at(-1)).toMatchObject({ scope, name: '' })
  })
})

describe('labour by the time of day', () => {
  it('is added, given its days, and taken out', async () => {
    const times = reactive<{ name: string; days: number[] }[]>([])
    mount(TimesOfDay, {
      props: { modelValue: times as never, wrong: () => '' },
      attachTo: document.body,
    })
    await press('A time of day')
    expect(times).toMatchObject([{ days: [6, 7] }])
    times[0]!.name = 'Night'
    await nextTick()
    const days = body().findAll('[role="group"] input[type="checkbox"]')
    await days[4]!.setValue(true)
    await days[5]!.setValue(false)
    expect(times[0]!.days).toEqual([7, 5])
    await press('Take out Night')
    expect(times).toEqual([])
  })
})

describe('beside and above the board', () => {
  const visit = (over: object = {}) => ({
    ...(sampleOf(routeOf('placeVisit').answer!) as object),
    id: 'v',
    title: 'Pump hums',
    customer: 'Vane',
    waiting: 'called 3 days ago',
    durationSeconds: 5400,
    ...over,
  })
  it('what waits says since when and how long it takes; what was promised for today presses', () => {
    const page = mount(BoardTray, {
      props: { visits: [visit(), visit({ id: 'w', waiting: 'promised for today' })] as never },
    })
    const cards = page.findAll('.card')
    expect(cards[0]!.text()).toContain('called 3 days ago · 1:30 h')
    expect(cards.map((card) => card.classes('late'))).toEqual([false, true])
  })
  it('an empty tray says that everything has its time', () =>
    expect(mount(BoardTray, { props: { visits: [] } }).text()).toContain(
      'Everything has its time.',
    ))
  it('the week says how much of each half day is taken, and which day is shown', async () => {
    const day = (date: string) => ({
      date,
      morning: 3,
      afternoon: 0,
      capacityMorning: 4,
      capacityAfternoon: 2,
    })
    const page = mount(WeekTabs, {
      props: { week: [day('2026-11-24'), day('2026-11-25')], date: '2026-11-25' },
    })
    const [first, second] = page.findAll('button')
    expect(first!.text()).toContain('3/4')
    expect(second!.attributes('aria-current')).toBe('date')
    await first!.trigger('click')
    expect(page.emitted('go')).toEqual([['2026-11-24']])
  })
  it.each([
    [0, '2026-11-24T12:00:00.000Z'],
    [149, '2026-11-24T12:00:00.000Z'],
    [150, '2026-11-24T12:15:00.000Z'],
    [599, '2026-11-24T12:45:00.000Z'],
  ])('a lane that is pressed at %i is the quarter of an hour before it', (clientX, time) => {
    const lane = document.createElement('div')
    vi.spyOn(lane, 'getBoundingClientRect').mockReturnValue({ left: 0, width: 600 } as DOMRect)
    const press = { currentTarget: lane, clientX, clientY: 0 } as unknown as MouseEvent
    const hour = { from: Date.parse('2026-11-24T12:00:00Z'), span: 3_600_000 }
    expect(timeAt(press, hour, false)).toBe(time)
    // Turned, the same is measured from above.
    const down = { left: 0, width: 9, top: 0, height: 600 } as DOMRect
    vi.spyOn(lane, 'getBoundingClientRect').mockReturnValue(down)
    const pressed = { currentTarget: lane, clientX: 0, clientY: clientX } as unknown as MouseEvent
    expect(timeAt(pressed, hour, true)).toBe(time)
  })
})

describe('the run', () => {
  const drawn = async (may: Permission[]) => {
    const count = { count: 3, sum: { amount: '120.50', currency: 'USD' } }
    bring({
      says: {
        run: {
          calls: { count: 5, late: 1 },
          schedule: { count: 18, atRisk: 0 },
          onSite: { count: 3 },
          toBill: count,
          unpaid: { ...count, late: 2 },
          quotes: { count: 4 },
        },
      },
    })
    useSession().me!.person.may = may
    const page = mount(RunBand, {
      global: { stubs: { NuxtLink: { template: '<a><slot /></a>' } } },
    })
    await settle()
    return page
  }
  it('says what waits at each stop, and how much it is', async () => {
    const page = await drawn(permissionsOf('books'))
    expect(page.findAll('a').map((stop) => stop.text().replace(/\s+/g, ' ').trim())).toEqual([
      'Calls5 waiting 1 overdue',
      'Schedule18 today',
      'On site3 working',
      'To bill3 $120.50',
      'Unpaid3 $120.50 2 late',
    ])
    expect(page.emitted('quotes')).toEqual([[4]])
  })
  it('has no stop that this person may not open', async () =>
    expect((await drawn([])).text()).not.toContain('Unpaid'))
})
it('the index names no permission that there is not, and no place twice', () => {
  const links = [...RUN, ...INDEX.flatMap((group) => group.links)]
  for (const [, , may] of links) expect(PERMISSIONS).toHaveProperty([may])
  expect(new Set(links.map(([to]) => to)).size).toBe(links.length)
})
