// Limits, and another person's yes: who goes over theirs is refused, asks, and it is done with somebody's yes, once, on what is there then.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { callerNamed, database, id, signedIn, somethingToBill, type Client } from './client'

let office: Client
let owner: Client
let dispatch: Client
let workOrderId = ''
beforeAll(async () => {
  office = await signedIn('office')
  owner = await signedIn('owner')
  dispatch = await signedIn('dispatch')
  workOrderId = (await somethingToBill(office)).workOrderId
  const { id: entryId } = (await office.ok('priceBook', { query: { q: 'pressure switch' } }))
    .items[0]!
  await office.ok('addLines', {
    params: { id: workOrderId },
    body: { lines: [{ id: id(), entryId, quantity: '1' }] },
  })
})
afterAll(async () => {
  const db = await database()
  await db.query(`UPDATE company SET limits = '{}', grants = '{}'`)
  await db.end()
})
const work = () => office.ok('workOrder', { params: { id: workOrderId } })
type Line = Answer<'workOrder'>['lines'][number]
/** The line that is in the book. */
const booked = async (): Promise<Line> => (await work()).lines.find((l) => l.bookPrice !== null)!
const lowering = (line: Line, unitPrice: string) => ({
  params: { id: line.id },
  body: { version: line.version, unitPrice },
})
const ask = (line: Line, unitPrice: string, more: object = {}) => ({
  body: {
    ...{ id: id(), route: 'changeLine' as const, subjectId: line.id, reason: 'an old customer' },
    body: JSON.stringify(lowering(line, unitPrice).body),
    ...more,
  },
})
const asked = async () => (await work()).asks

describe('who goes beyond their limit', () => {
  it('is refused, with how far they may go', async () => {
    const line = await booked()
    const refused = await dispatch.send('changeLine', lowering(line, '0.01'))
    expect([refused.status, refused.body.code, refused.body.detail]).toEqual([
      403,
      'over_limit',
      'That is 100 % below its price; you may go 10 % below. Ask for another person’s yes.',
    ])
    expect((await booked()).unitPrice).toBe(line.unitPrice)
  })
  it('is refused so at a discount on all of it, too', async () => {
    const params = { id: workOrderId }
    const half = { params, body: { discount: '60 %' } }
    expect((await office.send('discountLines', half)).body.code).toBe('over_limit')
    expect((await owner.send('discountLines', half)).status).toBe(200)
    await owner.ok('discountLines', { params, body: { discount: '0' } })
  })
  it('asks, once however often it is sent; and it waits where whoever may looks', async () => {
    const line = await booked()
    const body = ask(line, '1.00')
    for (let i = 0; i < 2; i++) await dispatch.ok('askForYes', body)
    expect(await asked()).toMatchObject([
      {
        what: expect.stringMatching(/at \$\d+\.\d\d instead of \$/) as string,
        reason: 'an old customer',
        mine: false,
      },
    ])
    const places = (await owner.ok('toActOn')).places
    expect(places.find((p) => p.place === 'asks')!.items.map((i) => i.reason)).toContain(
      'Dan Ferris asks: an old customer'.replace('Dan Ferris', (await asked())[0]!.askedBy),
    )
  })
  it('does not say yes to it themselves, nor does whoever may not', async () => {
    const [one] = await asked()
    const yes = { params: { id: one!.id }, body: { yes: true } }
    expect((await dispatch.send('answerAsk', yes)).status).toBe(404)
    expect((await booked()).unitPrice).not.toBe('1.00')
  })
  it('is not given a yes that goes beyond the limit of who says it', async () => {
    const [one] = await asked()
    const yes = { params: { id: one!.id }, body: { yes: true } }
    expect((await office.send('answerAsk', yes)).body.code).toBe('over_limit')
  })
  it('has it done with a yes, as it was asked, and the history says who asked and who said yes', async () => {
    const [one] = await asked()
    const yes = { params: { id: one!.id }, body: { yes: true } }
    const both = await Promise.all([owner.send('answerAsk', yes), owner.send('answerAsk', yes)])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
    expect(Number((await booked()).unitPrice)).toBe(1)
    expect(await asked()).toEqual([])
    const { history } = await work()
    expect(history.map((h) => h.text).join('\n')).toMatch(
      /Said yes to .*: “.*” at \$\d+\.\d\d instead of/,
    )
  })
  it('whose line was changed meanwhile is not answered with a yes', async () => {
    const line = await booked()
    await dispatch.ok('askForYes', ask(line, '0.50'))
    await owner.ok('changeLine', lowering(line, '2.00'))
    const [one] = await asked()
    const answer = (yes: boolean) =>
      owner.send('answerAsk', { params: { id: one!.id }, body: { yes } })
    expect((await answer(true)).body.code).toBe('stale')
    expect((await answer(false)).status).toBe(200)
    expect(await asked()).toEqual([])
  })
  it('does not come by asking to what they may not do at all', async () => {
    const line = await booked()
    const books = await signedIn('books')
    const before = line.unitPrice
    expect((await books.send('askForYes', ask(line, before))).status).toBe(403)
    const discount = {
      ...{ id: id(), route: 'discountLines', subjectId: workOrderId, reason: 'goodwill' },
      body: JSON.stringify({ discount: '1.00' }),
    }
    expect((await dispatch.send('askForYes', { body: discount })).status).toBe(403)
    expect((await booked()).discount.amount).toBe(line.discount.amount)
  })
  it('has nothing done of what is over it in one line of several, and asks for all of them', async () => {
    const sums = async () => (await work()).lines.map((l) => l.net.amount)
    const before = await sums()
    const body = {
      ...{ id: id(), route: 'discountLines' as const, subjectId: workOrderId, reason: 'goodwill' },
      body: JSON.stringify({ discount: '90 %' }),
    }
    await office.ok('askForYes', { body })
    expect(await sums()).toEqual(before)
    const [one] = await asked()
    await office.ok('answerAsk', { params: { id: one!.id }, body: { yes: false } })
  })
  it('is told where what is asked for is no JSON', async () => {
    const body = { ...ask(await booked(), '1.00').body, body: '{' }
    expect((await dispatch.send('askForYes', { body })).status).toBe(422)
  })
  it('takes back what they asked', async () => {
    await dispatch.ok('askForYes', ask(await booked(), '0.10'))
    const [one] = await asked()
    await dispatch.ok('answerAsk', { params: { id: one!.id }, body: { yes: false } })
    expect(await asked()).toEqual([])
  })
})
describe('a quote', () => {
  const drafted = async (unitPrice: string) => {
    const caller = await callerNamed(office, 'lowfold')
    const of = { customerId: caller.customerId, siteId: caller.sites[0]!.id }
    const { id: entryId } = (await office.ok('priceBook', { query: { q: 'pressure switch' } }))
      .items[0]!
    const lines = [{ id: id(), entryId, quantity: '1', unitPrice }]
    const made = await dispatch.ok('beginQuote', {
      body: { id: id(), ...of, title: 'Low', lines },
    })
    return { params: { id: made.id }, body: { version: made.version, to: [] } }
  }
  const quote = (params: { id: string }) => owner.ok('quote', { params })
  it('may be written at any price; sending it below the limit wants another person’s yes, and is done by it', async () => {
    const sending = await drafted('1.00')
    const { params, body } = sending
    const refused = await dispatch.send('sendQuote', sending)
    expect([refused.body.code, (await quote(params)).state]).toEqual(['over_limit', 'draft'])
    const question = { id: id(), route: 'sendQuote' as const, subjectId: params.id }
    await dispatch.ok('askForYes', {
      body: { ...question, body: JSON.stringify(body), reason: 'to win them back' },
    })
    const [asked] = (await quote(params)).asks
    expect(asked).toMatchObject({ reason: 'to win them back', mine: false })
    const { places } = await owner.ok('toActOn')
    expect(places.find(({ place }) => place === 'asks')!.items.map(({ to }) => to)).toContain(
      `/quotes/${params.id}`,
    )
    await owner.ok('answerAsk', { params: { id: asked!.id }, body: { yes: true } })
    const now = await quote(params)
    expect([now.state, now.asks]).toEqual(['sent', []])
    expect(now.history.map(({ text }) => text).join()).toMatch(/Said yes to .*Asked for a yes: /s)
  })
  it('within the limit is sent at once', async () =>
    expect((await dispatch.send('sendQuote', await drafted('900.00'))).status).toBe(200))
})
describe('the owner says', () => {
  const role = async (name: 'dispatch') =>
    (await owner.ok('limits')).roles.find((r) => r.role === name)!
  it('how far each may go, and it holds at once', async () => {
    const body = {
      roles: [{ ...(await role('dispatch')), lowerPercent: 100, belowCost: true }],
      given: [],
    }
    expect((await office.send('keepLimits', { body })).status).toBe(403)
    await owner.ok('keepLimits', { body })
    expect((await dispatch.send('changeLine', lowering(await booked(), '0.20'))).status).toBe(200)
  })
  it('who may do what: it is taken and given at once, and said to whoever is signed in', async () => {
    const phone = await signedIn('technician')
    const mayTake = async () => (await phone.ok('session')).person.may.includes('payments.take')
    const pay = () => phone.send('pay').then(({ status }) => status)
    expect([await mayTake(), await pay()]).toEqual([true, 422])
    const give = (roles: ('office' | 'books' | 'technician')[]) =>
      owner.ok('keepLimits', {
        body: { roles: [], given: [{ permission: 'payments.take' as const, roles }] },
      })
    const { given } = await give(['office'])
    expect(given.find(({ permission }) => permission === 'payments.take')!.roles).toEqual([
      'owner',
      'office',
    ])
    expect([await mayTake(), await pay()]).toEqual([false, 403])
    await give(['office', 'books', 'technician'])
    expect([await mayTake(), await pay()]).toEqual([true, 422])
  })
  it('who sees what things cost', async () => {
    const cost = async () =>
      (await dispatch.ok('priceBook', { query: { q: 'pressure switch' } })).items[0]!.cost
    expect(await cost()).toBeNull()
    const give = (roles: ('office' | 'books' | 'dispatch')[]) =>
      owner.ok('keepLimits', {
        body: { roles: [], given: [{ permission: 'costs.see' as const, roles }] },
      })
    await give(['office', 'books', 'dispatch'])
    expect(Number(await cost())).toBeGreaterThan(0)
    await give(['office', 'books'])
  })
  it('nothing of what a role has no screen for, and takes nothing from the owner', async () => {
    const body = {
      roles: [],
      given: [{ permission: 'ledger.see' as const, roles: ['technician' as const] }],
    }
    const { given } = await owner.ok('keepLimits', { body })
    expect(given.find(({ permission }) => permission === 'ledger.see')!.roles).toEqual(['owner'])
    await owner.ok('keepLimits', {
      body: { roles: [], given: [{ permission: 'ledger.see', roles: ['books'] }] },
    })
  })
  it('of two owners’ changes at the same moment both hold', async () => {
    const rolesOf = (permission: 'visits.close' | 'customers.merge', roles: 'office'[]) =>
      owner.ok('keepLimits', { body: { roles: [], given: [{ permission, roles }] } })
    await Promise.all([rolesOf('visits.close', ['office']), rolesOf('customers.merge', [])])
    const { given } = await owner.ok('limits')
    expect(given.find((g) => g.permission === 'visits.close')!.roles).toEqual(['owner', 'office'])
    expect(given.find((g) => g.permission === 'customers.merge')!.roles).toEqual(['owner'])
  })
})
