// Live changes: a screen asks again after changes that can touch it, once for several, and after the line was down.
import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import { closeLive, connected, onLive, onMoved, readAsOf, SHOWS, type Shows } from '~/lib/live'

/** The stream of changes, held in hand. */
class Stream {
  static CLOSED = 2
  static open: Stream[] = []
  readyState = 1
  onerror = () => {}
  private readonly heard = new Map<string, (event: MessageEvent) => void>()
  constructor(readonly url: string) {
    Stream.open.push(this)
  }
  addEventListener(kind: string, listener: (event: MessageEvent) => void) {
    this.heard.set(kind, listener)
  }
  close() {}
  says(kind: string, data: object = {}) {
    this.heard.get(kind)?.(new MessageEvent(kind, { data: JSON.stringify(data) }))
  }
}
const stream = () => Stream.open.at(-1)!
const screen = (refresh: () => void, shows: Shows = {}, patience = 0) =>
  mount(
    defineComponent(() => {
      onLive(refresh, patience, shows)
      return () => h('p')
    }),
  )
const change = (subject: string, id = 'x', workOrderId: string | null = null) =>
  stream().says('change', { subject, id, workOrderId })
const settle = () => vi.advanceTimersByTime(25)

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('EventSource', Stream)
})
afterEach(() => {
  closeLive()
  vi.useRealTimers()
  Stream.open = []
})

describe('the stream', () => {
  it('begins after the oldest answer that came before it', () => {
    readAsOf(41)
    readAsOf(43)
    screen(vi.fn())
    expect(stream().url).toBe('/api/v1/live?after=41')
    // What comes later is told of whatever happens.
    readAsOf(12)
    closeLive()
    screen(vi.fn())
    expect(stream().url).toBe('/api/v1/live')
  })
})
describe('a change', () => {
  it('is told once, however many there were in one act', () => {
    const refresh = vi.fn()
    screen(refresh)
    change('visit')
    change('work')
    expect(refresh).not.toHaveBeenCalled()
    settle()
    expect(refresh).toHaveBeenCalledOnce()
  })
  it('touches the screens that show its kind', () => {
    const [book, day] = [vi.fn(), vi.fn()]
    screen(book, SHOWS.book)
    screen(day, SHOWS.day)
    change('prices')
    settle()
    expect([book.mock.calls.length, day.mock.calls.length]).toEqual([1, 0])
  })
  it('touches a page that is about that thing, or about its work order', () => {
    const refresh = vi.fn()
    screen(refresh, { about: () => ['w1', null] })
    change('visit', 'v9', 'w2')
    settle()
    expect(refresh).not.toHaveBeenCalled()
    change('visit', 'v1', 'w1')
    settle()
    change('work', 'w1')
    settle()
    expect(refresh).toHaveBeenCalledTimes(2)
  })
  it('that is not told in full may be anything but what all are told', () => {
    const [money, book] = [vi.fn(), vi.fn()]
    screen(money, SHOWS.money)
    screen(book, { subjects: ['prices'] })
    change('something')
    settle()
    expect(money).toHaveBeenCalledOnce()
    expect(book).not.toHaveBeenCalled()
  })
  it('lets the middle of the screen go first where its edge is patient', () => {
    const refresh = vi.fn()
    screen(refresh, {}, 300)
    change('visit')
    settle()
    change('visit')
    settle()
    expect(refresh).not.toHaveBeenCalled()
    vi.advanceTimersByTime(300)
    expect(refresh).toHaveBeenCalledOnce()
  })
  it('is not told to a screen that is gone', () => {
    const refresh = vi.fn()
    screen(refresh).unmount()
    screen(() => {})
    change('visit')
    settle()
    expect(refresh).not.toHaveBeenCalled()
  })
})
describe('the line', () => {
  it('that was down makes everything old', () => {
    const refresh = vi.fn()
    screen(refresh, { subjects: ['prices'], about: () => ['p1'] })
    stream().says('hello')
    settle()
    expect(refresh).not.toHaveBeenCalled()
    stream().onerror()
    expect(connected.value).toBe(false)
    stream().says('hello')
    settle()
    expect(connected.value).toBe(true)
    expect(refresh).toHaveBeenCalledOnce()
  })
  it('that was refused is opened again after a while, where somebody still listens', () => {
    const page = screen(() => {})
    stream().readyState = Stream.CLOSED
    stream().onerror()
    vi.advanceTimersByTime(10_000)
    expect(Stream.open).toHaveLength(2)
    stream().readyState = Stream.CLOSED
    stream().onerror()
    page.unmount()
    vi.advanceTimersByTime(10_000)
    expect(Stream.open).toHaveLength(2)
  })
  it('is one for the window', () => {
    screen(() => {})
    screen(() => {})
    expect(Stream.open).toHaveLength(1)
  })
})
describe('vans that move', () => {
  it('are told to those who watch them only', () => {
    const [moved, changed] = [vi.fn(), vi.fn()]
    mount(
      defineComponent(() => {
        onMoved(moved)
        onLive(changed)
        return () => h('p')
      }),
    )
    stream().says('moved')
    settle()
    expect([moved.mock.calls.length, changed.mock.calls.length]).toEqual([1, 0])
  })
})
