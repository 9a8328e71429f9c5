// Who is signed in stays so through a line that drops; only the server's word signs somebody out.
import { beforeEach, describe, expect, it } from 'vitest'
import { useSession } from '~/stores/session'
import { answers } from './server'

const ME = { person: { name: 'Olive Brandt', may: ['calls.take'] }, today: '2026-11-24' }
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
  it('outlives a line that dropped: the next page asks again', async () => {
    const dropped = new TypeError('network')
    answers(dropped, dropped, dropped, { body: ME })
    const session = useSession()
    expect(await session.load()).toBeNull()
    expect(localStorage.getItem('signed-in')).toBe('1')
    expect((await session.load())?.person.name).toBe('Olive Brandt')
  })
  it('ends where the server says so', async () => {
    answers({ status: 401, body: { code: 'signed_out' } })
    expect(await useSession().load()).toBeNull()
    expect(localStorage.getItem('signed-in')).toBeNull()
  })
})
