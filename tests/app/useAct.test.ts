// An act is done once: a second press is dropped, what is added waits its turn.
import { describe, expect, it } from 'vitest'
import { useAct } from '~/lib/useAct'
import { Problem } from '~/lib/api'
import { later } from './server'

describe('an act', () => {
  it('is busy from the press to its answer, and answers', async () => {
    const { busy, act } = useAct()
    const { promise, settle } = later<number>()
    const done = act(() => promise)
    expect(busy.value).toBe(true)
    settle(7)
    expect(await done).toBe(7)
    expect(busy.value).toBe(false)
  })
  it('is dropped while another one runs', async () => {
    const { act } = useAct()
    const { promise, settle } = later<string>()
    const first = act(() => promise)
    const second = act(() => Promise.resolve('second'))
    settle('first')
    expect(await Promise.all([first, second])).toEqual(['first', undefined])
  })
  it('that is added waits for the one before, and begins when it is over', async () => {
    const { act, busy } = useAct()
    const order: string[] = []
    const { promise, settle } = later<void>()
    const first = act(() => promise.then(() => order.push('first')), 'wait')
    const second = act(() => Promise.resolve(order.push('second')), 'wait')
    expect(order).toEqual([])
    settle()
    await Promise.all([first, second])
    expect(order).toEqual(['first', 'second'])
    expect(busy.value).toBe(false)
  })
  it('that failed says why, answers nothing, and holds up nobody', async () => {
    const { act, problem } = useAct()
    const refused = new Problem('It is locked.', { status: 409, code: 'locked' })
    const first = act(() => Promise.reject(refused), 'wait')
    const second = act(() => Promise.resolve('done'), 'wait')
    expect(await first).toBeUndefined()
    expect(await second).toBe('done')
    expect(problem.value).toBeNull()
    await act(() => Promise.reject(refused))
    expect(problem.value).toBe(refused)
  })
})
