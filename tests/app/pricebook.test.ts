// Parts of the price book: rules in per cent, price lists on their way in, what nobody sells; and a technician's day to scale.
import { flushPromises, mount } from '@vue/test-utils'
import { beforeAll, describe, expect, it } from 'vitest'
import { nextTick, reactive, ref, shallowRef } from 'vue'
import { begins, dayScale, ends, type Visit } from '~/dispatch/one/dayScale'
import { catalogueOfRoutes } from '~/lib/api'
import ListLook from '~/pricebook/lists/ListLook.vue'
import { useColumns } from '~/pricebook/lists/useColumns'
import { usePriceList } from '~/pricebook/lists/usePriceList'
import { watchImport } from '~/pricebook/lists/watchImport'
import HourCost from '~/pricebook/rules/HourCost.vue'
import { useRules, type Rules } from '~/pricebook/rules/useRules'
import DormantTable from '~/pricebook/usage/DormantTable.vue'
import { useSession } from '~/stores/session'
import type { Table } from '~~/core/formats/readCsv'
import { answers, later } from './server'
import { within } from './within'

beforeAll(() => catalogueOfRoutes())
const signIn = () => {
  useSession().me = {
    person: { may: [], seesCost: true },
    company: { currency: 'USD', locale: 'en-US', timeZone: 'UTC' },
  } as never
}
const YEAR = {
  wages: '412000',
  burden: '82400',
  overhead: '236000',
  paidHours: '12480',
  billedShare: '0.58',
  targetMargin: '0.2',
}
const TAXED = [{ id: 'goods', name: 'Goods', usualFor: 'goods' as const }]
const kept = (over: Partial<Rules> = {}): Rules =>
  ({
    markups: [{ scope: 'all', name: '', tiers: [{ fromCost: '0', multiplier: '2.2' }] }],
    stamp: 's1',
    sundriesRate: '0.03',
    minimum: '95',
    rounding: 'whole',
    ending: 0,
    times: [],
    year: YEAR,
    labour: [],
    categories: [],
    suppliers: [],
    taxClasses: [],
    ...over,
  }) as never

describe('the rules as they are typed', () => {
  it('are per cent on the screen, and fractions where they are kept', async () => {
    const asked = answers({ body: kept() })
    const { form, year, keep } = within(() => useRules(shallowRef<Rules | null>(kept())))
    expect([form.sundries, form.year.billedShare]).toEqual(['3', '58'])
    form.sundries = '4.5'
    expect(year.value.billedShare).toBe('0.58')
    await keep()
    expect(asked[0]!.body).toMatchObject({ sundriesRate: '0.045', year: YEAR })
  })
  it('follow what somebody else kept where nothing is typed, and say it where something is', async () => {
    const data = shallowRef<Rules | null>(kept())
    const { form, rules, takeTheirs } = within(() => useRules(data))
    data.value = kept({ minimum: '110', stamp: 's2' })
    await nextTick()
    expect([form.minimum, rules.changed]).toEqual(['110', false])
    form.sundries = '5'
    data.value = kept({ minimum: '120', sundriesRate: '0.04', stamp: 's3' })
    await nextTick()
    expect([form.minimum, form.sundries, rules.changed]).toEqual(['120', '5', true])
    expect([...rules.meanwhile]).toEqual([['sundries', '4']])
    takeTheirs()
    expect([form.sundries, rules.changed]).toEqual(['4', false])
  })
  it('are sent as those that were read, so that nobody else’s are lost unseen', async () => {
    const asked = answers({ body: kept({ stamp: 's2' }) })
    const { keep } = within(() => useRules(shallowRef<Rules | null>(kept())))
    await keep()
    await keep()
    expect(asked.map(({ body }) => (body as { stamp: string }).stamp)).toEqual(['s1', 's2'])
  })
  it('leave the year out until all of it is said', async () => {
    const asked = answers({ body: kept() })
    const { form, isFull, keep } = within(() => useRules(shallowRef<Rules | null>(kept())))
    form.year.wages = ''
    expect(isFull.value).toBe(false)
    await keep()
    expect(asked[0]!.body).toMatchObject({ year: null })
  })
  it('keep what is no figure as it was typed: the server says what is wrong with it', () => {
    const { form, year } = within(() => useRules(shallowRef<Rules | null>(kept())))
    form.year.billedShare = 'half'
    expect(year.value.billedShare).toBe('half')
  })
})
describe('what an hour must cost', () => {
  const drawn = (inFractions: typeof YEAR, isFull = true) => {
    signIn()
    const props = { modelValue: { ...YEAR }, inFractions, isFull, owns: true, standard: undefined }
    return mount(HourCost, { props })
  }
  it('is the year over the hours that are billed, with the margin', () => {
    // (412 000 + 82 400 + 236 000) / (12 480 × 0.58) / (1 − 0.2), by hand
    expect(drawn(YEAR).get('[aria-label="Labour rate needed"]').text()).toBe('$126.13')
  })
  it('waits until all six are filled in', () =>
    expect(drawn(YEAR, false).text()).toContain('Fill in all six.'))
  it('says why it cannot be', () =>
    expect(
      drawn({ ...YEAR, paidHours: '0' })
        .get('.wrong')
        .text(),
    ).not.toBe(''))
})

const table = (...head: string[]): Table => ({ head, rows: [head.map(() => 'x')] })
describe('the columns of a price list', () => {
  const columnsOf = (of: Table) => {
    const at = ref<Table | null>(of)
    const supplier = ref('')
    return { supplier, ...within(() => useColumns(at, supplier)) }
  }
  it('are guessed by their headings', async () => {
    answers({ body: { known: false, columns: [] } })
    const { columns, understand } = columnsOf(table('Code', 'Name', 'Price'))
    await understand(table('Code', 'Name', 'Price'))
    expect(columns.value).toEqual(['code', 'name', 'price'])
  })
  it('mean what they meant the last time; what is no meaning any more is none', async () => {
    answers({ body: { known: true, columns: ['part_number', 'gone'] } })
    const { columns, remembered, understand } = columnsOf(table('A', 'B'))
    await understand(table('A', 'B'))
    expect([columns.value, remembered.value]).toEqual([['part_number', null], true])
  })
  it('ask for a code or a part number, and whose part numbers they are', async () => {
    answers({ body: { known: false, columns: [] } })
    const { columns, asks, supplier } = columnsOf(table('A'))
    columns.value = ['name']
    expect(asks.value).toMatch(/code or the part number/)
    columns.value = ['part_number']
    expect(asks.value).toMatch(/whose list/)
    supplier.value = 'Northmoor'
    expect(asks.value).toBe('')
    await flushPromises()
  })
})
describe('a price list', () => {
  const counts = { new: 1, changed: 0, same: 0, wrong: 0, vanished: 0 }
  const looked = {
    stamp: 's1',
    counts,
    wrong: [],
    new: [],
    changed: [],
    vanished: [],
    prices: { changed: 0, follow: 0 },
  }
  const file = (rows: number) =>
    new File([['Code,Name,Price', ...Array(rows).fill('P-1,Tank,10')].join('\n')], 'list.csv')
  it('goes in pieces, and is looked at', async () => {
    const list = within(() => usePriceList(ref(kept({ taxClasses: TAXED }))))
    answers({ body: { known: false, columns: [] } })
    await list.read(file(4500))
    const asked = answers({}, {}, {}, { body: looked })
    await list.look()
    const pieces = asked.slice(0, 3).map((a) => (a.body as { rows: { row: number }[] }).rows)
    expect(pieces.map((p) => p.length)).toEqual([2000, 2000, 500])
    expect(pieces[2]![0]!.row).toBe(4002)
    expect(list.seen?.stamp).toBe('s1')
    expect(list.progress).toEqual({ what: '', done: 0, of: 0 })
  })
  it('is looked at anew where what it means was changed', async () => {
    const list = within(() => usePriceList(ref(kept({ taxClasses: TAXED }))))
    answers({ body: { known: false, columns: [] } })
    await list.read(file(1))
    answers({}, { body: looked })
    await list.look()
    list.options.vanished = 'retire'
    await nextTick()
    expect(list.seen).toBeNull()
  })
  it('that was read before is forgotten when another one cannot be read', async () => {
    const list = within(() => usePriceList(ref(kept({ taxClasses: TAXED }))))
    answers({ body: { known: false, columns: [] } })
    await list.read(file(1))
    await expect(list.read(new File([''], 'empty.csv'))).rejects.toThrow()
    expect(list.table).toBeNull()
  })
  it('forgets its progress also where it fails', async () => {
    const progress = reactive({ what: 'writing', done: 5, of: 9 })
    const failed = watchImport('id', Promise.reject(new Error('broke')), progress)
    await expect(failed).rejects.toThrow('broke')
    expect(progress).toEqual({ what: '', done: 0, of: 0 })
  })
  it('answers what its work answers, once it is done', async () => {
    const work = later<string>()
    const watched = watchImport('id', work.promise, { what: '', done: 0, of: 0 })
    work.settle('taken in')
    expect(await watched).toBe('taken in')
  })
  it('that leaves out much asks before it retires', async () => {
    signIn()
    const much = { ...looked, counts: { ...counts, changed: 3, vanished: 400 } }
    const page = mount(ListLook, { props: { seen: much as never, retiring: true, busy: false } })
    const take = () => page.findAll('button').find((b) => b.text().startsWith('Take in'))!
    expect(take().text()).toMatch(/Take in 4 rows\s*and retire 400/)
    expect(take().attributes('disabled')).toBeDefined()
    await page.get('input[type=checkbox]').setValue(true)
    expect(take().attributes('disabled')).toBeUndefined()
    await take().trigger('click')
    expect(page.emitted('take')).toHaveLength(1)
  })
  it('that leaves out much is no question where nothing is retired', () => {
    signIn()
    const much = { ...looked, counts: { ...counts, vanished: 400 } }
    const page = mount(ListLook, { props: { seen: much as never, retiring: false, busy: false } })
    expect(page.find('input[type=checkbox]').exists()).toBe(false)
  })
})
describe('what nobody sells', () => {
  const entry = (id: string) => ({ id, code: id, name: id, category: 'Pump', price: '10.00' })
  it('is chosen and retired; what is gone is chosen no more', async () => {
    signIn()
    const page = mount(DormantTable, {
      props: { dormant: [entry('P-1'), entry('P-2')], count: 2, owns: true, busy: false },
    })
    const button = (name: string) => page.findAll('button').find((b) => b.text().startsWith(name))!
    await button('Choose these').trigger('click')
    expect(button('Retire').text()).toBe('Retire 2')
    await page.setProps({ dormant: [entry('P-2')], count: 1 })
    expect(button('Retire').text()).toBe('Retire 1')
    await button('Retire').trigger('click')
    expect(page.emitted('retire')).toEqual([[['P-2']]])
  })
})
describe('a technician’s day to scale', () => {
  const day = { dayStart: '2026-11-24T07:00:00.000Z', dayEnd: '2026-11-24T17:00:00.000Z' }
  const at = (time: string) => `2026-11-24T${time}:00.000Z`
  it('has its hours one beneath the other', () => {
    const { hours, y, height } = dayScale(day)
    expect(hours).toHaveLength(11)
    expect([y(hours[0]!), y(hours[10]!)]).toEqual([0, height])
    expect(y(at('12:00'))).toBe(height / 2)
  })
  it('cuts off what reaches beyond it', () => {
    const { place, height } = dayScale(day)
    expect(place(at('05:00'), at('20:00'))).toEqual({ top: '0px', height: `${height}px` })
  })
  it('keeps a short visit tall enough to be read', () =>
    expect(dayScale(day).place(at('08:00'), at('08:05'), 26).height).toBe('26px'))
  it('stands where a visit is expected, not where it was planned', () => {
    const visit = { startAt: at('08:00'), arriveAt: at('08:20'), durationSeconds: 3600 } as Visit
    expect([begins(visit), ends(visit)]).toEqual([Date.parse(at('08:20')), Date.parse(at('09:20'))])
    expect(ends({ ...visit, finishAt: at('09:05') })).toBe(Date.parse(at('09:05')))
  })
})
