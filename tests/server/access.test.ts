import { beforeAll, describe, expect, it } from 'vitest'
import { routes, type RouteName } from '../../shared/api'
import { ROLES, type Role } from '../../core/access/permissions'
import { callersOf, type Route } from '../../shared/schema'
import { base, Client, database, id, signedIn, somethingToBill } from './client'

const clients = {} as Record<Role, Client>
beforeAll(async () => {
  for (const role of ROLES) clients[role] = await signedIn(role)
})
const table = Object.entries(routes) as [RouteName, Route][]
const guarded = table.filter(([name, r]) => r.may && name !== 'live' && name !== 'signOut')

describe('every route and role', () => {
  it('says who may call it, in one way', () =>
    expect(table.filter(([, r]) => Boolean(r.may) === Boolean(r.who))).toEqual([]))
  it.each(guarded.map(([name]) => name))('%s: nobody without signing in', async (name) =>
    expect((await new Client().send(name)).status).toBe(401),
  )
  for (const [name, route] of guarded) {
    for (const role of ROLES) {
      const may = callersOf(route).includes(role)
      it(`${name}: ${role} ${may ? 'may' : 'may not'}`, async () => {
        const { status } = await clients[role].send(name)
        if (may) expect([200, 404, 409, 422]).toContain(status)
        else expect(status).toBe(403)
      })
    }
  }
  it.each(table.filter(([, r]) => r.who === 'public').map(([name]) => name))(
    '%s answers everybody, and never with a 500',
    async (name) => expect((await new Client().send(name)).status).toBeLessThan(500),
  )
})
describe('a technician', () => {
  it('does not read another one’s work by changing an id', async () => {
    const day = await (await signedIn({ email: 'tobiah@demo.test' })).ok('fieldDay')
    const foreign = day.visits[0]!
    expect(
      (await clients.technician.send('fieldVisit', { params: { id: foreign.id } })).status,
    ).toBe(404)
    expect(
      (await clients.technician.send('workOrder', { params: { id: foreign.workOrderId } })).status,
    ).toBe(404)
    expect(
      (
        await clients.technician.send('clock', {
          params: { id: foreign.id },
          body: { act: 'set_off' },
        })
      ).status,
    ).toBe(404)
    expect(
      (
        await clients.technician.send('furtherVisit', {
          params: { id: foreign.id },
          body: { id: id(), version: 99, durationSeconds: 3600 },
        })
      ).status,
    ).toBe(404)
    expect(
      (
        await clients.technician.send('addLines', {
          params: { id: foreign.workOrderId },
          body: { lines: [{ id: id(), name: 'x', kind: 'other', quantity: '1', unitPrice: '1' }] },
        })
      ).status,
    ).toBe(404)
  })
  it('sees cost only when allowed', async () => {
    const entryFor = async (client: Client) =>
      (await client.ok('searchPriceBook', { query: { q: 'diagnostic' } })).items[0]!
    expect((await entryFor(clients.technician)).cost).toBe('0.00')
    expect((await entryFor(await signedIn({ email: 'tobiah@demo.test' }))).cost).toBeNull()
  })
  it('takes money only for own invoices', async () => {
    const { customerId } = await somethingToBill(clients.office)
    const invoice = (await clients.books.ok('invoices', { query: { state: 'open' } })).items[0]!
    expect(
      (
        await clients.technician.send('pay', {
          body: { id: id(), customerId, method: 'cash', amount: '1.00', invoiceIds: [] },
        })
      ).status,
    ).toBe(422)
    const reply = await (
      await signedIn({ email: 'rosa@demo.test' })
    ).send('pay', {
      body: {
        id: id(),
        customerId: invoice.customerId,
        method: 'cash',
        amount: '1.00',
        invoiceIds: [id()],
      },
    })
    expect(reply.status).toBe(404)
  })
})
describe('signing in', () => {
  it('says the same for an unknown address and a wrong password', async () => {
    const wrong = await new Client().send('signIn', {
      body: { email: 'office@demo.test', password: 'nonsense' },
    })
    const unknown = await new Client().send('signIn', {
      body: { email: 'nobody@demo.test', password: 'nonsense' },
    })
    expect([wrong.status, wrong.body.code, wrong.body.detail]).toEqual([
      unknown.status,
      unknown.body.code,
      unknown.body.detail,
    ])
    expect(wrong.status).toBe(401)
  })
  it('keeps neither passwords nor session tokens readable', async () => {
    const db = await database()
    const [people] = (await db.query('SELECT password_hash FROM people')) as unknown as [
      { password_hash: string }[],
    ]
    expect(people.every((p) => p.password_hash.startsWith('scrypt$'))).toBe(true)
    const [sessions] = (await db.query('SELECT id FROM sessions')) as unknown as [{ id: string }[]]
    expect(sessions.every((s) => /^[0-9a-f]{64}$/.test(s.id))).toBe(true)
    await db.end()
  })
  it('ends on the server when signed out: a copied cookie is worth nothing', async () => {
    const client = await signedIn('books')
    const copy = new Client()
    copy.cookie = client.cookie
    await client.ok('signOut')
    expect((await copy.send('session')).status).toBe(401)
  })
  it('gives machines a token with the rights of its owner', async () => {
    const { token } = await clients.dispatch.ok('newToken', { body: { label: 'test' } })
    const machine = new Client()
    expect(
      (
        await machine.raw('GET', '/api/v1/schedule', undefined, {
          Authorization: `Bearer ${token}`,
        })
      ).status,
    ).toBe(200)
    expect(
      (await machine.raw('GET', '/api/v1/unpaid', undefined, { Authorization: `Bearer ${token}` }))
        .status,
    ).toBe(403)
  })
  it('takes no write that another site sends with our cookie', async () => {
    const reply = await clients.office.raw(
      'POST',
      `/api/v1/calls/${id()}`,
      { draft: {} },
      { Origin: 'https://elsewhere.example' },
    )
    expect([reply.status, reply.body.code]).toEqual([403, 'foreign_origin'])
  })
  it('seals the cookie away from scripts', async () => {
    const response = await fetch(`${base}/api/v1/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ email: 'office@demo.test', password: 'open-ledger' }),
    })
    expect(response.headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Lax/i)
  })
})
it('sends security headers with every page', async () => {
  const { headers } = await new Client().raw('GET', '/sign-in')
  expect(headers.get('content-security-policy')).toContain("frame-ancestors 'none'")
  expect([
    headers.get('x-content-type-options'),
    headers.get('referrer-policy'),
    headers.get('x-powered-by'),
  ]).toEqual(['nosniff', 'no-referrer', null])
  // Styles come from our own files; only a style of one element may stand in a page.
  expect(headers.get('content-security-policy')).toContain("style-src 'self';")
  expect((await new Client().raw('GET', '/request')).headers.get('cache-control')).toBe('no-store')
})
