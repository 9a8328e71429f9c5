// Who is signed in stays so through a line that drops; only the server's word signs somebody out.
import { flushPromises } from '@vue/test-utils'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { asked, guardWindow } from '~/base/leaving'
import { askAhead } from '~/lib/ahead'
import { catalogueOfRoutes } from '~/lib/api'
import { useSignOut } from '~/lib/useSignOut'
import { useSession } from '~/stores/session'
import { bring } from './screen'
import { answers } from './server'
import { within } from './within'

const ME = { person: { name: 'Olive Brandt', may: ['calls.take'] }, today: '2026-11-24' }
beforeAll(() => catalogueOfRoutes())
beforeEach(() => localStorage.setItem('signed-in', '1'))

describe('a session', () => {
  it('is asked for once, where somebody signed in before', async () => {
    const asked = answers({ body: ME })
    const session = useSession()
    await session.load()
    await session.load()
    expect(asked).toHaveLength(1)
    expect([session.may('calls.take'), session.may('settings.change')]).toEqual([true, false])
  })
  it('is not asked for where nobody did', async () => {
    localStorage.removeItem('signed-in')
    const asked = answers({ body: ME })
    expect(await useSession().load()).toBeNull()
    expect(asked).toHaveLength(0)
  })
  it('asked for before its page is there is asked for once', async () => {
    const asked = answers({ body: ME })
    askAhead('session')
    expect(asked).toHaveLength(1)
    expect((await useSession().load())?.person.name).toBe('Olive Brandt')
    expect(asked).toHaveLength(1)
  })
  it('that could not be asked for early is asked for again by the next page', async () => {
    const dropped = new TypeError('network')
    answers(dropped, dropped, dropped, { body: ME })
    askAhead('session')
    const session = useSession()
    expect([await session.load(), session.away !== '']).toEqual([null, true])
    expect((await session.load())?.person.name).toBe('Olive Brandt')
  })
  it('outlives a line that dropped: the next page asks again', async () => {
    const dropped = new TypeError('network')
    answers(dropped, dropped, dropped, { body: ME })
    const session = useSession()
    expect(await session.load()).toBeNull()
    expect(localStorage.getItem('signed-in')).toBe('1')
    expect((await session.load())?.person.name).toBe('Olive Brandt')
  })
  it('that came with its page is asked for by nobody; its clock has run on since it arrived', async () => {
    const asked = answers()
    const session = useSession()
    const noon = { now: '2026-11-24T12:00:00Z', company: { timeZone: 'UTC' }, clockFixed: false }
    session.begin({ ...ME, ...noon } as never, 1_000_000.4)
    const later = vi.spyOn(Date, 'now').mockReturnValue(1_030_000)
    expect((await session.load())?.person.name).toBe('Olive Brandt')
    expect([asked.length, new Date(session.now()).toISOString()]).toEqual([
      0,
      '2026-11-24T12:00:30.000Z',
    ])
    session.turnDay()
    expect(session.today).toBe('2026-11-24')
    later.mockReturnValue(1_000_000 + 13 * 3_600_000)
    session.turnDay()
    expect(session.today).toBe('2026-11-25')
    later.mockRestore()
  })
  it('ends where the server says so', async () => {
    answers({ status: 401, body: { code: 'signed_out' } })
    expect(await useSession().load()).toBeNull()
    expect(localStorage.getItem('signed-in')).toBeNull()
  })
})

describe('whoever signs out', () => {
  const KEPT = 'schedule-filter'
  /** A window with a filter, and with something typed that is not kept. */
  function typedIn() {
    bring()
    sessionStorage.setItem(KEPT, '{}')
    const unkept = ref(true)
    const discard = vi.fn(() => void (unkept.value = false))
    const { signOut, problem } = within(() => {
      guardWindow(() => unkept.value, discard)
      return useSignOut()
    })
    return { signOut, problem, discard }
  }
  it('is asked about what is not kept, and stays where they say so', async () => {
    const { signOut, discard } = typedIn()
    const done = signOut()
    await flushPromises()
    asked.value!.answer(false)
    await done
    expect([bring.sent().length, discard.mock.calls.length]).toEqual([0, 0])
  })
  it('leaves nothing in the window, and comes to the sign-in', async () => {
    const { signOut, discard } = typedIn()
    const went = bring({ says: { signOut: {} } })
    const done = signOut()
    await flushPromises()
    asked.value!.answer(true)
    await done
    expect([went, discard.mock.calls.length]).toEqual([['/sign-in'], 1])
    expect([sessionStorage.getItem(KEPT), localStorage.getItem('signed-in')]).toEqual([null, null])
  })
  it('loses nothing where that fails, and is told why', async () => {
    const { signOut, problem, discard } = typedIn()
    const went = bring({ says: { signOut: 'The books are away.' } })
    const done = signOut()
    await flushPromises()
    asked.value!.answer(true)
    await done
    expect([went, discard.mock.calls.length]).toEqual([[], 0])
    expect([sessionStorage.getItem(KEPT), localStorage.getItem('signed-in')]).toEqual(['{}', '1'])
    expect(problem.value!.message).toContain('The books are away.')
  })
})
