// The one way to the server: writes once whatever the line does, and says what was wrong where.
import { describe, expect, it, vi } from 'vitest'
import { call, newId, Problem } from '~/lib/api'
import { forgetLostWrites } from '~/lib/lostWrites'
import { answers } from './server'

const note = { kind: 'note' as const, amount: null, onDate: null, text: 'rang, will pay' }
const body = { ...note, id: '019aa000-0000-7000-8000-000000000001' }
const params = { id: '019aa000-0000-7000-8000-000000000002' }
const refused = (work: Promise<unknown>) =>
  work.then(
    () => expect.fail('It was not refused.'),
    (error: Problem) => error,
  )

describe('a question', () => {
  it('puts its parts where the address has them, and leaves out what is not said', async () => {
    const asked = answers({ body: { items: [] } })
    await call('sites', { query: { q: 'a & b', after: undefined, territory: '' } })
    expect(asked[0]).toMatchObject({ method: 'GET', path: '/sites?q=a+%26+b', key: null })
  })
  it('encodes what stands in the path', async () => {
    const asked = answers({})
    await call('customer', { params: { id: 'a/b' } })
    expect(asked[0]!.path).toBe('/customers/a%2Fb')
  })
})
describe('a write', () => {
  it('is sent again under the same key when the line dropped', async () => {
    const asked = answers(new TypeError('network'), { body: {} })
    await call('collectionNote', { params, body })
    expect(asked).toHaveLength(2)
    expect(asked[0]!.key).toBeTruthy()
    expect(asked[1]!.key).toBe(asked[0]!.key)
  })
  it('takes the key that it is given', async () => {
    const asked = answers({})
    await call('collectionNote', { params, body, key: 'note-1' })
    expect(asked[0]!.key).toBe('note-1')
  })
  it('gives up after three times, and says that nothing typed is lost', async () => {
    const asked = answers(new TypeError('network'))
    const problem = await refused(call('collectionNote', { params, body }))
    expect([problem.code, problem.status, asked.length]).toEqual(['offline', 0, 3])
    expect(problem.message).toContain('still here')
  })
  it('that is plainly wrong is refused without asking, each field with its sentence', async () => {
    const asked = answers({})
    const wrong = { ...body, kind: 'promise' as const, text: 7 as unknown as string, id: 'none' }
    const problem = await refused(call('collectionNote', { params, body: wrong }))
    expect(asked).toHaveLength(0)
    expect(problem.status).toBe(422)
    expect(problem.at('id')).not.toBe('')
    expect(problem.at('kind')).toBe('')
  })
})
describe('a refusal', () => {
  it('carries its code, its sentence, its fields and what else it knows', async () => {
    const errors = [{ path: 'amount', message: 'More than is open.' }]
    answers({ status: 409, body: { code: 'more_than_open', detail: 'Too much.', errors, over: 3 } })
    const problem = await refused(call('collectionNote', { params, body }))
    expect(problem).toBeInstanceOf(Problem)
    expect([problem.status, problem.code, problem.message]).toEqual([
      409,
      'more_than_open',
      'Too much.',
    ])
    expect(problem.at('amount')).toBe('More than is open.')
    expect(problem.extra.over).toBe(3)
  })
  it('without a word of the server does not say what nobody knows', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('<html>', { status: 502 })))
    const problem = await refused(call('run'))
    expect([problem.code, problem.message]).toEqual([
      'unexpected',
      'The server did not answer as it should. Try again: what was saved already is not saved twice.',
    ])
  })
  it('of a session that ended leads to the door, but not at the door itself', async () => {
    const out = vi.fn()
    window.addEventListener('signed-out', out)
    answers({ status: 401, body: { code: 'signed_out' } })
    await refused(call('session'))
    await refused(call('signIn', { body: { email: 'a@b.test', password: 'x' } }))
    expect(out).not.toHaveBeenCalled()
    await refused(call('run'))
    expect(out).toHaveBeenCalledOnce()
    window.removeEventListener('signed-out', out)
  })
})
describe('a write whose answer was lost', () => {
  const noted = (text: string) =>
    call('collectionNote', { params, body: { ...body, id: newId(), text } })
  it('is, asked for again in the same words, the same one: with its identifiers and its key', async () => {
    const asked = answers({ status: 502 }, {}, {})
    await refused(noted('rang'))
    await noted('rang')
    expect(asked[1]).toEqual(asked[0])
    await noted('rang')
    expect((asked[2]!.body as { id: string }).id).not.toBe((asked[0]!.body as { id: string }).id)
    expect(asked[2]!.key).not.toBe(asked[0]!.key)
  })
  it('in other words is another one', async () => {
    const asked = answers({ status: 502 }, {})
    await refused(noted('rang once'))
    await noted('rang twice')
    expect((asked[1]!.body as { id: string }).id).not.toBe((asked[0]!.body as { id: string }).id)
  })
  it('is another one also where it was refused: that is an answer', async () => {
    const asked = answers({ status: 409, body: { code: 'stale', detail: 'Older.' } }, {})
    await refused(noted('wrote'))
    await noted('wrote')
    expect(asked[1]!.key).not.toBe(asked[0]!.key)
  })
  it('is forgotten by whoever signs out', async () => {
    const asked = answers({ status: 502 }, {})
    await refused(noted('left'))
    forgetLostWrites()
    await noted('left')
    expect(asked[1]!.key).not.toBe(asked[0]!.key)
  })
  it('that says how something is to be is not taken for the one before what was said since', async () => {
    const asked = answers({ status: 502 }, {}, {})
    const pin = (on: boolean) => call('pinEntry', { params, body: { on } })
    await refused(pin(true))
    await pin(false)
    await pin(true)
    expect(new Set(asked.map(({ key }) => key)).size).toBe(3)
  })
  it('is over once something else was done at its address: said again, it is meant anew', async () => {
    const asked = answers({ status: 502 }, {}, {})
    await refused(noted('rang at nine'))
    await noted('rang at ten')
    await noted('rang at nine')
    expect(asked[2]!.key).not.toBe(asked[0]!.key)
  })
  it('is over a quarter of an hour later', async () => {
    const asked = answers({ status: 502 }, {})
    await refused(noted('rang today'))
    vi.spyOn(Date, 'now').mockReturnValue(Date.now() + 16 * 60_000)
    await noted('rang today')
    expect(asked[1]!.key).not.toBe(asked[0]!.key)
  })
  it('at another address is another one, also where that was named here', async () => {
    const asked = answers({ status: 502 }, {})
    const to = () => call('pinEntry', { params: { id: newId() }, body: { on: true } })
    await refused(to())
    await to()
    expect(asked[1]!.path).not.toBe(asked[0]!.path)
  })
})
