// Lists: page after page, the last words win, kept as a file and printed as a whole; and what nobody says, the window's edge does.
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, effectScope, nextTick, ref } from 'vue'
import type { Column } from '~/base/columns'
import TableActs from '~/base/TableActs.vue'
import { saveFile, tableCsv } from '~/base/tableFile'
import UnansweredStrip from '~/base/UnansweredStrip.vue'
import LedgerList from '~/components/base/LedgerList.vue'
import { askAllAnew } from '~/lib/live'
import { sayUnanswered, unanswered, useAsking } from '~/lib/unanswered'
import { useSession } from '~/stores/session'
import { later } from './server'
import { router, within } from './within'

interface Row {
  id: string
  name: string
  owes: string
}
const COLUMNS: Column<Row>[] = [
  { key: 'name', label: 'Customer', text: (row) => row.name },
  { key: 'owes', label: 'Owes', text: (row) => `$${row.owes}`, file: (row) => row.owes },
  { key: 'act' },
]
const row = (n: number): Row => ({ id: `r${n}`, name: `Customer ${n}`, owes: `${n}.50` })
const rows = (from: number, to: number) =>
  Array.from({ length: to - from + 1 }, (_, i) => row(from + i))
beforeEach(() => {
  vi.stubGlobal(
    'EventSource',
    class extends EventTarget {
      close() {}
    },
  )
  useSession().me = {
    company: { locale: 'en-US', timeZone: 'UTC', currency: 'USD' },
    person: { may: [] },
    today: '2026-11-24',
  } as never
})

describe('a table as a file', () => {
  it('has the heads of its columns and what they say, sums as numbers', () =>
    expect(tableCsv(COLUMNS, rows(1, 2))).toBe(
      'Customer,Owes\r\nCustomer 1,1.50\r\nCustomer 2,2.50\r\n',
    ))
  it('leaves acts out, and what a column does not say empty', () => {
    const columns: Column<Row>[] = [
      { key: 'a', label: 'A', text: () => null },
      { key: 'b', label: 'B' },
    ]
    expect(tableCsv(columns, [row(1)])).toBe('A\r\n\r\n')
  })
  it('holds no formula: a name that begins like one is a text', () =>
    expect(tableCsv(COLUMNS, [{ ...row(1), name: '=1+1' }])).toContain("'=1+1"))
  it('is handed over once, with the mark by which spreadsheets know its alphabet', async () => {
    const made: Blob[] = []
    vi.stubGlobal(
      'URL',
      Object.assign(URL, {
        createObjectURL: (blob: Blob) => (made.push(blob), 'blob:x'),
        revokeObjectURL: vi.fn(),
      }),
    )
    const pressed = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => {})
    saveFile('Unpaid 2026-11-24', 'A\r\n')
    expect(pressed).toHaveBeenCalledOnce()
    expect((pressed.mock.contexts[0] as HTMLAnchorElement).download).toBe('Unpaid 2026-11-24.csv')
    expect([...new Uint8Array(await made[0]!.arrayBuffer()).slice(0, 3)]).toEqual([
      0xef, 0xbb, 0xbf,
    ])
  })
})

describe('what can be done with a whole table', () => {
  const acts = (all: () => readonly Row[] | Promise<readonly Row[] | null>) =>
    mount(TableActs<Row>, { props: { name: 'Customers', columns: COLUMNS, rows: all } })
  it('waits for all of its rows, and is not begun twice meanwhile', async () => {
    const waiting = later<Row[]>()
    const print = vi.fn()
    vi.stubGlobal('print', print)
    const asked = vi.fn(() => waiting.promise)
    const [, printing] = acts(asked).findAll('button')
    await printing!.trigger('click')
    await printing!.trigger('click')
    expect([asked.mock.calls.length, print.mock.calls.length]).toEqual([1, 0])
    waiting.settle(rows(1, 3))
    await flushPromises()
    expect(print).toHaveBeenCalledOnce()
  })
  it('is not done with a part of them', async () => {
    const print = vi.fn()
    vi.stubGlobal('print', print)
    await acts(() => Promise.resolve(null))
      .findAll('button')[1]!
      .trigger('click')
    await flushPromises()
    expect(print).not.toHaveBeenCalled()
  })
  it('can be done again after it failed', async () => {
    const page = acts(() => Promise.reject(new Error('away')))
    page.vm.$.appContext.config.errorHandler = () => {}
    await page.findAll('button')[0]!.trigger('click')
    await flushPromises()
    expect(page.findAll('button')[0]!.attributes('disabled')).toBeUndefined()
  })
})

describe('a list', () => {
  type Page = { items: Row[]; next: string | null; total: number }
  const drawn = (load: (q: string, after?: string) => Promise<Page>, props: object = {}) =>
    mount(LedgerList<Row>, {
      props: {
        title: 'Customers',
        filter: 'Name',
        empty: 'Nobody yet.',
        load,
        columns: COLUMNS,
        ...props,
      },
      attachTo: document.body,
    })
  const inPages = (count: number, size = 2) =>
    vi.fn((_: string, after?: string) => {
      const from = Number(after ?? 0)
      const to = Math.min(count, from + size)
      const items = from < count ? rows(from + 1, to) : []
      return Promise.resolve({ items, next: to < count ? String(to) : null, total: count })
    })
  it('stays live as far as it is shown, and loses no page that is asked for meanwhile', async () => {
    let count = 5
    const load = vi.fn((q: string, after?: string) => inPages(count)(q, after))
    const page = drawn(load)
    await flushPromises()
    await page.get('.foot button').trigger('click')
    await flushPromises()
    const names = () => page.findAll('tbody tr').map((r) => r.find('td').text())
    expect(names()).toHaveLength(4)
    count = 3
    askAllAnew()
    await vi.waitFor(() => expect(names()).toHaveLength(3))
    count = 5
    const slow = later<void>()
    load.mockImplementationOnce((q, after) => slow.promise.then(() => inPages(count)(q, after)))
    askAllAnew()
    await vi.waitFor(() => expect(load.mock.calls.length).toBeGreaterThan(4))
    slow.settle()
    await vi.waitFor(() => expect(names()).toHaveLength(4))
  })
  it('has its words in the address, and takes them from there', async () => {
    const load = inPages(3)
    const page = drawn(load)
    await flushPromises()
    await page.get('input').setValue('mar')
    await vi.waitFor(() => expect(router().currentRoute.value.query).toEqual({ q: 'mar' }))
    await router().push('/?q=hal')
    await vi.waitFor(() => expect(load.mock.calls.at(-1)![0]).toBe('hal'))
    expect(page.get('input').element.value).toBe('hal')
  })
  it('shows the first page and how many there are, and goes on when it is asked', async () => {
    const page = drawn(inPages(5))
    await flushPromises()
    expect(page.text()).toContain('2 of 5')
    await page
      .findAll('button')
      .find((b) => b.text() === 'Show more')!
      .trigger('click')
    await flushPromises()
    expect(page.text()).toContain('4 of 5')
    expect(page.text()).toContain('Customer 4')
  })
  it('kept as a file is all of it, whatever is shown', async () => {
    const kept: string[] = []
    vi.stubGlobal(
      'URL',
      Object.assign(URL, {
        createObjectURL: (blob: Blob) => (void blob.text().then((t) => kept.push(t)), 'blob:x'),
        revokeObjectURL: vi.fn(),
      }),
    )
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => {})
    const page = drawn(inPages(5))
    await flushPromises()
    await page
      .findAll('button')
      .find((b) => b.text() === 'Keep as CSV')!
      .trigger('click')
    for (let i = 0; i < 8; i++) await flushPromises()
    expect(kept[0]!.trim().split('\r\n')).toHaveLength(6)
  })
  it('of which a page could not be had is kept as no file, and says why', async () => {
    let asked = 0
    const click = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => {})
    const page = drawn(() =>
      asked++
        ? Promise.reject(new Error('The line dropped.'))
        : Promise.resolve({ items: rows(1, 2), next: '2', total: 5 }),
    )
    await flushPromises()
    await page
      .findAll('button')
      .find((b) => b.text() === 'Keep as CSV')!
      .trigger('click')
    await flushPromises()
    expect(click).not.toHaveBeenCalled()
    expect(page.get('[role="alert"]').text()).toBe('The line dropped.')
    expect(page.text()).toContain('2 of 5')
  })
  it('that is empty says so, and says otherwise where words were typed', async () => {
    const page = drawn(() => Promise.resolve({ items: [], next: null, total: 0 }))
    await flushPromises()
    expect(page.text()).toContain('Nobody yet.')
    await page.get('input').setValue('zz')
    await flushPromises()
    expect(page.text()).toContain('Nothing fits these words.')
  })
  it('that cannot be had is not called empty', async () => {
    const page = drawn(() => Promise.reject(new Error('The books are away.')))
    await flushPromises()
    expect(page.text()).toContain('The books are away.')
    expect(page.text()).not.toContain('Nobody yet.')
  })
  it('shows what the last words found, however late the answer before them comes', async () => {
    const answers = [later<Page>(), later<Page>(), later<Page>()]
    let turn = 0
    const page = drawn(() => answers[turn++]!.promise)
    await page.get('input').setValue('a')
    await page.get('input').setValue('ab')
    answers[2]!.settle({ items: [row(9)], next: null, total: 1 })
    await flushPromises()
    answers[1]!.settle({ items: [row(7)], next: null, total: 1 })
    answers[0]!.settle({ items: [row(8)], next: null, total: 1 })
    await flushPromises()
    expect(page.text()).toContain('Customer 9')
    expect(page.text()).not.toMatch(/Customer [78]/)
  })
})

describe('what could not be had', () => {
  const strip = () => mount(UnansweredStrip)
  it('is said once, whoever it is missing to, and asked for again by one press', async () => {
    const [one, other] = [vi.fn(), vi.fn()]
    const problem = ref<{ message: string } | null>({ message: 'The server is away.' })
    const scope = effectScope()
    scope.run(() => {
      sayUnanswered(problem, one)
      sayUnanswered(problem, other)
    })
    const page = strip()
    expect(page.text().match(/The server is away\./g)).toHaveLength(1)
    await page.get('button').trigger('click')
    expect([one.mock.calls.length, other.mock.calls.length]).toEqual([1, 1])
    problem.value = null
    await nextTick()
    expect(page.text()).toBe('')
    scope.stop()
  })
  it('leaves with its screen', async () => {
    const scope = effectScope()
    scope.run(() =>
      sayUnanswered(
        computed(() => ({ message: 'Away.' })),
        vi.fn(),
      ),
    )
    expect(unanswered.size).toBe(1)
    scope.stop()
    expect(unanswered.size).toBe(0)
  })
  it('is left to the page where the page says it', () => {
    within(() => sayUnanswered(ref({ message: 'Away.' }), vi.fn(), () => true))
    expect(unanswered.size).toBe(0)
  })
  it('is asked again as it was asked, and taken back once it is there', async () => {
    const answers = [Promise.reject(new Error('Away.')), Promise.resolve(7)]
    let turn = 0
    const got = ref<number | null>(0)
    const ask = within(() => useAsking())
    const load = async () => void (got.value = await ask(() => answers[turn++]!, load))
    await load()
    expect([got.value, unanswered.size]).toEqual([null, 1])
    const [missing] = unanswered.values()
    await missing!.again()
    await flushPromises()
    expect([got.value, unanswered.size]).toEqual([7, 0])
  })
})
