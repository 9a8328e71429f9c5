// What a screen shows is the answer to the question that it asks now: late answers to others are dropped.
import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import { askAhead } from '~/lib/ahead'
import { useAnswer, useAsked } from '~/lib/useAnswer'
import { Problem } from '~/lib/api'
import { answers, later } from './server'

type Row = { id: string; name: string }
type Data = { rows: Row[] }
class Silent {
  static CLOSED = 2
  addEventListener() {}
  close() {}
}
/** A screen that shows the answer of `load` for the key that it has. */
function screen(load: (id: string) => Promise<Data>, id = ref('a'), off = ref(false)) {
  vi.stubGlobal('EventSource', Silent)
  let asked!: ReturnType<typeof useAsked<Data>>
  const page = mount(
    defineComponent(() => {
      asked = useAsked<Data>(
        () => (off.value ? null : ['rows', id.value]),
        () => load(id.value),
      )
      return () => h('p', asked.data.value?.rows.map((row) => row.name).join(' ') ?? 'nothing')
    }),
  )
  return { page, asked, id, off }
}
const named = (...names: string[]): Data => ({ rows: names.map((name) => ({ id: name, name })) })

describe('an answer', () => {
  it('is shown once it is there', async () => {
    const { page } = screen(() => Promise.resolve(named('Vane')))
    expect(page.text()).toBe('nothing')
    await flushPromises()
    expect(page.text()).toBe('Vane')
  })
  it('that was overtaken by a later question is dropped', async () => {
    const late = { a: later<Data>(), b: later<Data>() }
    const { page, id } = screen((key) => late[key as 'a'].promise)
    id.value = 'b'
    await flushPromises()
    late.b.settle(named('of b'))
    await flushPromises()
    late.a.settle(named('of a'))
    await flushPromises()
    expect(page.text()).toBe('of b')
  })
  it('stays on the screen while the next one is on its way', async () => {
    const second = later<Data>()
    const { page, id } = screen((key) =>
      key === 'a' ? Promise.resolve(named('of a')) : second.promise,
    )
    await flushPromises()
    id.value = 'b'
    await flushPromises()
    expect(page.text()).toBe('of a')
    second.settle(named('of b'))
    await flushPromises()
    expect(page.text()).toBe('of b')
  })
  it('keeps the rows that say the same, so that they are not drawn anew', async () => {
    let turn = 0
    const { asked } = screen(() => Promise.resolve(named('Vane', turn++ ? 'Okonjo' : 'Renn')))
    await flushPromises()
    const [first] = asked.data.value!.rows
    await asked.refresh()
    expect(asked.data.value!.rows[0]).toBe(first)
    expect(asked.data.value!.rows[1]!.name).toBe('Okonjo')
  })
  it('is not asked for where there is nothing to ask about', async () => {
    const load = vi.fn(() => Promise.resolve(named('Vane')))
    const { page, off } = screen(load, ref('a'), ref(true))
    await flushPromises()
    expect(load).not.toHaveBeenCalled()
    off.value = false
    await flushPromises()
    expect(page.text()).toBe('Vane')
  })
  it('of an act is newer than a question that is still on its way', async () => {
    const slow = later<Data>()
    let turn = 0
    const { page, asked } = screen(() => (turn++ ? slow.promise : Promise.resolve(named('old'))))
    await flushPromises()
    const again = asked.refresh()
    asked.data.value = named('kept')
    slow.settle(named('older'))
    await again
    await flushPromises()
    expect(page.text()).toBe('kept')
  })
  it('that failed says why, and what was there stays', async () => {
    let turn = 0
    const { page, asked } = screen(() =>
      turn++
        ? Promise.reject(new Problem('It broke.', { status: 500, code: 'unexpected' }))
        : Promise.resolve(named('Vane')),
    )
    await flushPromises()
    await asked.refresh()
    expect(asked.problem.value?.message).toBe('It broke.')
    expect(page.text()).toBe('Vane')
  })
  it('is asked for anew by whoever comes back', async () => {
    const load = vi.fn(() => Promise.resolve(named('Vane')))
    const { page } = screen(load)
    await flushPromises()
    page.unmount()
    screen(load)
    await flushPromises()
    expect(load).toHaveBeenCalledTimes(2)
  })
})

describe('what was asked ahead of its screen', () => {
  const day = (date: string) => ({ body: { date, visits: [], notBegun: [], openVisitId: null } })
  const shown = () => {
    vi.stubGlobal('EventSource', Silent)
    let asked!: ReturnType<typeof useAnswer<'fieldDay'>>
    const page = mount(
      defineComponent(() => {
        asked = useAnswer('fieldDay')
        return () => h('p', asked.data.value?.date ?? 'nothing')
      }),
    )
    return { page, refresh: () => asked.refresh() }
  }
  it('is what it shows first, and asked anew after that', async () => {
    const sent = answers(day('2026-11-24'), day('2026-11-25'))
    askAhead('fieldDay')
    const { page, refresh } = shown()
    await flushPromises()
    expect([page.text(), sent.length]).toEqual(['2026-11-24', 1])
    await refresh()
    await flushPromises()
    expect([page.text(), sent.length]).toEqual(['2026-11-25', 2])
  })
  it('and refused is asked again', async () => {
    answers({ status: 503, body: { code: 'busy' } }, day('2026-11-25'))
    askAhead('fieldDay')
    await flushPromises()
    const { page } = shown()
    await flushPromises()
    expect(page.text()).toBe('2026-11-25')
  })
  it('too long ago is asked again', async () => {
    const now = vi.spyOn(Date, 'now').mockReturnValue(0)
    answers(day('2026-11-24'), day('2026-11-25'))
    askAhead('fieldDay')
    now.mockReturnValue(60_000)
    const { page } = shown()
    await flushPromises()
    expect(page.text()).toBe('2026-11-25')
    now.mockRestore()
  })
})
