// Where a line comes from: the price book as it is searched in the browser, a line of its own, a supplier's basket.
import { DOMWrapper, mount, type VueWrapper } from '@vue/test-utils'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import LineSources from '~/components/pricebook/LineSources.vue'
import OwnLine, { type OwnLine as OwnLineOf } from '~/components/pricebook/OwnLine.vue'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import { draftsOf } from '~/base/drafts'
import { asked, mayLeaveWindow } from '~/base/leaving'
import SupplierSheet from '~/components/pricebook/SupplierSheet.vue'
import { forgetBook } from '~/lib/book'
import { catalogueOfRoutes } from '~/lib/api'
import { unanswered } from '~/lib/unanswered'
import { useSession } from '~/stores/session'
import { routeOf, type Answer, type RouteName } from '~~/shared/api'
import { alerts, button, buttons, choose, field, fill, press, rows, typed } from './hands'
import { sampleOf, type Wanted } from './sample'
import { later } from './server'
import { bring, settle } from './screen'

const made = <N extends RouteName>(name: N, over: Partial<Answer<N>> = {}, wanted?: Wanted) =>
  ({ ...(sampleOf(routeOf(name).answer!, wanted) as object), ...over }) as Answer<N>
const body = () => new DOMWrapper(document.body)
beforeAll(() => catalogueOfRoutes())
beforeEach(() => {
  useSession().me = {
    company: { locale: 'en-US', timeZone: 'America/New_York', currency: 'USD' },
    person: { id: 'olive', may: ['pricebook.change'], name: 'Olive', seesCost: true },
    today: '2026-11-24',
    now: '2026-11-24T15:00:00Z',
    clockFixed: true,
  } as never
})

describe('the price book as it is searched', () => {
  const entry = (code: string, name: string, over: object = {}) => ({
    ...made('wholeBook').items[0]!,
    id: `0192d4e0-0000-7000-8000-${code.padStart(12, '0')}`,
    code,
    name,
    category: 'Tanks',
    kind: 'part' as const,
    pinned: false,
    pictureId: null,
    ...over,
  })
  const BOOK = [
    entry('1', 'Pressure tank 44 gal'),
    entry('2', 'Pressure tank 86 gal'),
    entry('3', 'Relief valve', { category: 'Valves' }),
    entry('4', 'Replace a tank', { kind: 'task' }),
    entry('5', 'Diagnostic visit', { kind: 'charge', pinned: true }),
  ]
  const drawn = async (props: object = {}) => {
    await forgetBook()
    bring({
      says: { wholeBook: { ...made('wholeBook'), items: BOOK, mine: [], same: false, stamp: 's' } },
    })
    const taken = vi.fn((_: { code: string }[]): unknown => undefined)
    const page = mount(PriceSearch, {
      props: { label: 'Add from the price book', atHand: true, choose: taken, ...props },
      attachTo: document.body,
    })
    await settle()
    const search = async (words: string) => {
      await fill('Add from the price book', words)
      await settle()
    }
    const names = () => page.findAll('ul li').map((one) => one.text())
    const key = async (name: string, more: object = {}) => {
      await field('Add from the price book').trigger('keydown', { key: name, ...more })
      await settle()
    }
    const chosen = () => taken.mock.calls.map(([entries]) => entries.map((e) => e.code))
    return { page, search, names, key, chosen, taken }
  }
  async function pick(page: VueWrapper, category: string) {
    const list = page.findAllComponents({ name: 'Choice' }).at(-1)!
    list.vm.$emit('update:modelValue', category)
    await settle()
  }
  it('shows what is at hand before anything is typed', async () => {
    const { names } = await drawn()
    expect(names()).toHaveLength(1)
    expect(names()[0]).toContain('Diagnostic visit')
  })
  it('finds by words in any order, the best first', async () => {
    const { search, names } = await drawn()
    await search('44 tank')
    expect(names()[0]).toContain('Pressure tank 44 gal')
  })
  it('is taken by Enter, and ready for the next words', async () => {
    const { search, key, chosen } = await drawn()
    await search('relief')
    await key('Enter')
    expect(chosen()).toEqual([['3']])
    expect(typed('Add from the price book')).toBe('')
  })
  it('is walked by arrows', async () => {
    const { search, key, chosen } = await drawn()
    await search('pressure tank')
    await key('ArrowDown')
    await key('Enter')
    expect(chosen()).toHaveLength(1)
    expect(['1', '2']).toContain(chosen()[0]![0])
    expect(chosen()[0]).toHaveLength(1)
  })
  it('several are marked, and taken together with the one under the hand', async () => {
    const { search, key, chosen } = await drawn()
    await search('relief')
    await key('Enter', { shiftKey: true })
    expect(body().text()).toContain('1 chosen: Relief valve')
    await search('diagnostic')
    await key('Enter')
    expect(chosen()).toEqual([['3', '5']])
  })
  it('a mark is taken back', async () => {
    const { search, key } = await drawn()
    await search('relief')
    await key('Enter', { shiftKey: true })
    await key('Enter', { shiftKey: true })
    expect(body().text()).not.toContain('chosen:')
  })
  it('is narrowed to a kind', async () => {
    const { search, names } = await drawn()
    await press('Tasks')
    await search('tank')
    expect(names()).toHaveLength(1)
    expect(names()[0]).toContain('Replace a tank')
  })
  it('leaves out a kind that does not belong there', async () => {
    const { search, names } = await drawn({ not: 'task' })
    await search('replace tank')
    expect(names().join()).not.toContain('Replace a tank')
  })
  it('says that nothing reads like that', async () => {
    const { search } = await drawn()
    await search('qqqq')
    expect(body().text()).toContain('Nothing in the price book reads like that.')
  })
  it.each([
    ['a kind', () => press('Parts'), ['Pressure tank 44', 'Pressure tank 86', 'Relief valve']],
    ['a category', (page: VueWrapper) => pick(page, 'Valves'), ['Relief valve']],
  ])('shows what there is of %s without words', async (_, narrow, wanted) => {
    const { page, names } = await drawn()
    await narrow(page as VueWrapper)
    await settle()
    expect(names().map((name) => wanted.find((one) => name.includes(one)))).toEqual(
      expect.arrayContaining(wanted),
    )
    expect(names()).toHaveLength(wanted.length)
  })
  it('says that there is nothing of a kind', async () => {
    await drawn()
    await press('Assemblies')
    await settle()
    expect(body().text()).toContain('The price book has nothing of this.')
  })
  it.each([
    ['refused', Promise.resolve(undefined), 'relief'],
    ['taken', Promise.resolve(true), ''],
  ])('has its words afterwards where what was chosen was %s: “%3$s”', async (_, answer, words) => {
    const { search, key, taken } = await drawn()
    taken.mockReturnValue(answer)
    await search('relief')
    await key('Enter')
    await settle()
    expect(typed('Add from the price book')).toBe(words)
  })
  it('whose own script cannot be had says so, and is opened when it is asked for again', async () => {
    const there = Worker
    vi.stubGlobal(
      'Worker',
      class {
        terminate() {}
        addEventListener = (_: string, fails: () => void) => queueMicrotask(fails)
      },
    )
    const { names } = await drawn()
    const said = [...unanswered.values()]
    expect(said.map(({ message }) => message)).toEqual(['The price book could not be opened.'])
    expect(body().text()).toContain('Opening the price book…')
    vi.stubGlobal('Worker', there)
    await said[0]!.again()
    await settle()
    expect([names().length, unanswered.size]).toEqual([1, 0])
  })
  it('that was refused does not write over what is typed meanwhile', async () => {
    const { search, key, taken } = await drawn()
    const answer = later<boolean>()
    taken.mockReturnValue(answer.promise)
    await search('relief')
    await key('Enter')
    await search('tank')
    answer.settle(false)
    await settle()
    expect(typed('Add from the price book')).toBe('tank')
  })
  it('leaves the keys that book a call to the call', async () => {
    const { search, key, chosen } = await drawn()
    await search('relief')
    await key('Enter', { ctrlKey: true })
    expect(chosen()).toEqual([])
  })
})

describe('a line of its own', () => {
  const pricing = made('pricing', {
    taxClasses: [
      { id: 'full', name: 'Full', usualFor: 'goods' },
      { id: 'less', name: 'Less', usualFor: 'work' },
    ],
  })
  const drawn = async (says: object = {}) => {
    bring({ says: { pricing, ...says } })
    const add = vi.fn((_: OwnLineOf): Promise<unknown> => Promise.resolve(true))
    const props = { busy: false, about: 'this paper', add }
    const page = mount(OwnLine, { props, attachTo: document.body })
    await settle()
    return Object.assign(page, { added: () => add.mock.calls.map(([line]) => line), add })
  }
  const write = async () => {
    await fill('What it is', 'A rope')
    await fill('Price of one', '12.00')
  }
  it('is what was written, and stands in no book', async () => {
    const page = await drawn()
    await write()
    await fill('Costs us', '7.00')
    await press('Add the line')
    const wanted = { entryId: null, name: 'A rope', kind: 'part', quantity: '1' }
    expect(page.added()).toMatchObject([{ ...wanted, unitPrice: '12.00', cost: '7.00' }])
    expect(bring.sent().filter(({ method }) => method !== 'GET')).toEqual([])
  })
  it.each([
    ['What it is', '', 'Write what it is.'],
    ['Price of one', '', 'Write its price.'],
  ])('without “%s” is not added, and says so', async (label, text, sentence) => {
    const page = await drawn()
    await write()
    await fill(label, text)
    await press('Add the line')
    expect(alerts()).toEqual([sentence])
    expect(page.added()).toEqual([])
  })
  it.each([
    ['part', 'full'],
    ['labour', 'less'],
    ['charge', 'less'],
    ['other', 'full'],
  ])(
    'of the kind “%s” that is kept in the book is taxed there as on the paper: %s',
    async (kind, taxClass) => {
      const page = await drawn({ keepPriceEntry: made('keepPriceEntry') })
      await write()
      await choose(page, 'Kind', kind)
      await body().get('.keep input[type="checkbox"]').setValue(true)
      await settle()
      await fill('Code', 'R-1')
      await fill('Category', 'Ropes')
      await press('Add the line')
      const kept = bring.sent().find(({ name }) => name === 'keepPriceEntry')!
      expect(kept.body).toMatchObject({ code: 'R-1', name: 'A rope', taxClass, price: '12.00' })
      const [line] = page.added()
      expect(kept.url).toContain(line!.entryId)
      expect(line!.unitPrice).toBeUndefined()
    },
  )
  it('whose code is taken stays as it was written, and adds no line', async () => {
    const page = await drawn({ keepPriceEntry: 'Something else has this code already.' })
    await write()
    await body().get('.keep input[type="checkbox"]').setValue(true)
    await settle()
    await fill('Code', 'R-1')
    await fill('Category', 'Ropes')
    await press('Add the line')
    expect(alerts()).toContain('Something else has this code already.')
    expect([typed('What it is'), page.added()]).toEqual(['A rope', []])
  })
  describe('that was half written', () => {
    const drafts = () => Object.keys(localStorage).filter((key) => key.startsWith('draft olive'))
    beforeEach(() => {
      localStorage.clear()
      draftsOf('olive')
      return () => draftsOf('')
    })
    const halfWritten = async () => {
      const page = await drawn()
      await write()
      return page
    }
    it('is still there when it is opened again, on this paper', async () => {
      const before = await halfWritten()
      before.unmount()
      await drawn()
      expect([typed('What it is'), typed('Price of one')]).toEqual(['A rope', '12.00'])
    })
    it.each([
      ['refused', undefined, 1],
      ['taken', true, 0],
    ])('and is %s leaves so many drafts: %3$i', async (_, answer, left) => {
      const page = await halfWritten()
      page.add.mockResolvedValue(answer)
      await press('Add the line')
      expect([drafts().length, page.emitted('close')?.length ?? 0]).toEqual([left, 1 - left])
    })
    it('and left on purpose is gone', async () => {
      const page = await halfWritten()
      await press('Leave it')
      expect([drafts(), page.emitted('close')]).toEqual([[], [[]]])
    })
  })
})

describe('a supplier’s catalogue', () => {
  const suppliers = made('suppliers')
  const goods = made('supplierProducts', { next: null })
  const drawn = async (says: object = {}) => {
    bring({ says: { suppliers, supplierProducts: goods, ...says } })
    const page = mount(SupplierSheet, {
      props: { busy: false, problem: null },
      attachTo: document.body,
    })
    await settle()
    return page
  }
  const putIn = (i: number) => press(`Put ${goods.items[i]!.name} into the basket`)
  it('is that of the first supplier, until another is chosen', async () => {
    await drawn()
    await press(suppliers.items[1]!.name)
    const asked = bring.sent().filter(({ name }) => name === 'supplierProducts')
    expect(asked[0]!.url).toContain(encodeURIComponent(suppliers.items[0]!.id))
    expect(asked.at(-1)!.url).toContain(encodeURIComponent(suppliers.items[1]!.id))
  })
  it('fills a basket, in which the same thing is counted', async () => {
    const page = await drawn()
    await putIn(2)
    await putIn(2)
    await putIn(0)
    expect(button(/^Take 2 lines over/).attributes('disabled')).toBeUndefined()
    await press(/^Take 2 lines over/)
    const [[items] = []] = page.emitted('take')!
    expect(items!.map(({ partNumber, quantity }) => [partNumber, quantity])).toEqual([
      [goods.items[2]!.partNumber, '2'],
      [goods.items[0]!.partNumber, '1'],
    ])
  })
  it('is emptied again, line by line', async () => {
    await drawn()
    await putIn(1)
    await press(`Take out ${goods.items[1]!.name}`)
    expect(buttons(/^Take \d/)).toHaveLength(0)
  })
  it('asks before a basket is left', async () => {
    const page = await drawn()
    await putIn(2)
    await press('Close this dialog')
    expect(asked.value!.title).toBe('Not kept yet')
    asked.value!.answer(false)
    await settle()
    expect([page.emitted('close'), buttons(/^Take 1 line/).length]).toEqual([undefined, 1])
    await press('Close this dialog')
    asked.value!.answer(true)
    await expect.poll(() => page.emitted('close')).toBeTruthy()
    // It is left on purpose: the window, too, may go now.
    expect(await mayLeaveWindow()).toBe(true)
  })
  it('that does not answer says so', async () => {
    await drawn({ supplierProducts: 'Wells & Co does not answer.' })
    expect(alerts()).toContain('Wells & Co does not answer.')
  })
  it('is compared as the thing whose button was pressed last', async () => {
    const late = later<unknown>()
    const at = (supplier: string) => ({
      items: [{ ...goods.items[0]!, supplier, supplierId: supplier }],
    })
    await drawn({
      compareSuppliers: (url: string) =>
        url.includes(encodeURIComponent(goods.items[0]!.makerNumber))
          ? late.promise
          : at('The other'),
    })
    await buttons('Compare')[0]!.trigger('click')
    await buttons('Compare')[1]!.trigger('click')
    await settle()
    late.settle(at('The first'))
    await settle()
    expect(rows(`${goods.items[1]!.name} at every supplier`)[0]!.text()).toContain('The other')
    expect(body().text()).not.toContain('The first')
  })
})

describe('where a line comes from', () => {
  const drawn = async (addOwn: () => Promise<unknown>) => {
    bring({})
    const never = () => Promise.resolve(undefined)
    mount(LineSources, {
      props: {
        ...{ about: 'this paper', busy: false, problem: null },
        ...{ addEntries: never, addOwn, addBasket: never },
      },
      attachTo: document.body,
    })
    await settle()
    await press('Not in the book…')
    await fill('What it is', 'A rope')
    await fill('Price of one', '12.00')
    await press('Add the line')
  }
  it('is closed once the line is there', async () => {
    await drawn(() => Promise.resolve(true))
    expect(body().findAll('form.own')).toHaveLength(0)
  })
  it('stays open, with what was written, where it was refused', async () => {
    await drawn(() => Promise.resolve(undefined))
    expect(typed('What it is')).toBe('A rope')
  })
})
