// The floor under everything: what anybody sends, and what happens at the same moment, brings nothing down and doubles nothing.
import { once } from 'node:events'
import { readFileSync } from 'node:fs'
import { createServer, type AddressInfo } from 'node:net'
import type mysql from 'mysql2/promise'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closePool, inBackground, transaction } from '../../server/db/pool'
import { enqueue } from '../../server/jobs/jobs'
import { base, callerNamed, Client, database, id, signedIn, somethingToBill, until } from './client'

let office: Client
let books: Client
let db: mysql.Connection
beforeAll(async () => {
  office = await signedIn('office')
  books = await signedIn('books')
  db = await database()
})
afterAll(async () => {
  await db.end()
  await closePool()
})
/** Somebody at another address, as a proxy that we trust says. */
const from = (address: string): Client => Object.assign(new Client(), { address })
const count = async (sql: string, values: unknown[] = []) =>
  Number(((await db.query(sql, values)) as unknown as [[{ n: number }]])[0][0]!.n)
const statuses = (replies: { status: number }[]) => replies.map((r) => r.status).sort()

it('says which version it is', async () => {
  const { version } = JSON.parse(readFileSync('package.json', 'utf8')) as { version: string }
  expect(await office.ok('health')).toMatchObject({ status: 'ok', version })
})
describe('signing in', () => {
  const wrong = (client: Client, email: string) =>
    client.send('signIn', { body: { email, password: 'not it' } })
  it('wrongly, sixty times at once, stops nobody', async () => {
    const tries = Promise.all(
      Array.from({ length: 60 }, (_, i) => wrong(from('192.0.2.1'), `nobody${i}@demo.test`)),
    )
    const health = []
    for (let i = 0; i < 20; i++) health.push((await fetch(`${base}/api/health`)).status)
    expect(new Set((await tries).map((r) => r.status))).toEqual(new Set([401, 429]))
    expect(new Set(health)).toEqual(new Set([200]))
    expect((await office.send('run')).status).toBe(200)
  })
  it('is slowed down by address and account, counted before the hash: parallel tries do not slip through', async () => {
    const replies = await Promise.all(
      Array.from({ length: 15 }, () => wrong(from('192.0.2.2'), 'piet@demo.test')),
    )
    expect(replies.filter((r) => r.status === 401)).toHaveLength(5)
    const held = replies.find((r) => r.status === 429)!
    expect(held.body.code).toBe('too_often')
    expect(Number(held.headers.get('retry-after'))).toBe(held.body.retryAfter)
  })
  it('locks nobody out: the person signs in from elsewhere while somebody tries their door', async () => {
    const reply = await from('192.0.2.3').send('signIn', {
      body: { email: 'piet@demo.test', password: 'open-ledger' },
    })
    expect(reply.status).toBe(200)
  })
  it('tells the person, once', async () => {
    const email = 'rosa@demo.test'
    const about = async () =>
      (await office.ok('messages', { query: { q: 'wrong passwords', limit: '50' } })).items.filter(
        (m) => m.to === email,
      )
    for (let i = 0; i < 14; i++) await wrong(from(`192.0.2.${20 + i}`), email)
    await until(async () => (await about()).length === 1)
    await wrong(from('192.0.2.60'), email)
    expect(await about()).toHaveLength(1)
  })
  it('from another site’s page is refused, whatever that page calls itself', async () => {
    const body = { email: 'office@demo.test', password: 'open-ledger' }
    const foreign: Record<string, string>[] = [
      { Origin: 'null' },
      { Origin: 'https://elsewhere.example' },
      { Origin: 'no origin' },
      { 'Sec-Fetch-Site': 'cross-site' },
    ]
    for (const headers of foreign) {
      expect(
        (await new Client().raw('POST', '/api/v1/session', body, headers)).body.code,
        JSON.stringify(headers),
      ).toBe('foreign_origin')
    }
    expect(
      (
        await new Client().raw('POST', '/api/v1/session', JSON.stringify(body), {
          'Content-Type': 'text/plain',
        })
      ).status,
    ).toBe(415)
    expect(
      (
        await new Client().raw('POST', '/api/v1/session', body, {
          Origin: base,
          'Sec-Fetch-Site': 'same-origin',
        })
      ).status,
    ).toBe(200)
  })
  it('keeps no secret in the answers for repeated requests', async () => {
    const key = `sign-in-${id()}`
    const client = new Client()
    const token = await office.send('newToken', { body: { label: 'machine' }, key })
    expect(token.status).toBe(200)
    expect(await office.send('newToken', { body: { label: 'machine' }, key })).toMatchObject({
      status: 409,
      body: { code: 'shown_once' },
    })
    await client.send('signIn', {
      body: { email: 'office@demo.test', password: 'open-ledger' },
      key: `${key}-2`,
    })
    expect(
      await count(
        `SELECT COUNT(*) AS n FROM idempotency_keys WHERE answer LIKE '%cookieToken%' OR answer LIKE '%"token"%' OR answer LIKE '%public/calendars%'`,
      ),
    ).toBe(0)
  })
  it('asked without being signed in, sets no cookie', async () => {
    const { status, headers } = await new Client().send('run')
    expect([status, headers.get('set-cookie'), headers.get('x-powered-by')]).toEqual([
      401,
      null,
      null,
    ])
  })
})
describe('one’s own access', () => {
  it('is listed and ended, session by session; a token ends itself', async () => {
    const [here, there] = [await signedIn('dispatch'), await signedIn('dispatch')]
    const { token } = await here.ok('newToken', { body: { label: 'a script' } })
    const machine = new Client()
    const headers = { Authorization: `Bearer ${token}` }
    const { items } = await here.ok('mySessions')
    expect(items.find((s) => s.current)).toMatchObject({ kind: 'cookie', from: '127.0.0.1' })
    expect(items.filter((s) => s.label === 'a script')).toHaveLength(1)
    expect((await machine.raw('DELETE', '/api/v1/session', undefined, headers)).status).toBe(200)
    expect((await machine.raw('GET', '/api/v1/session', undefined, headers)).status).toBe(401)
    const program = {
      Authorization: `Bearer ${(await here.ok('newToken', { body: { label: 'a program' } })).token}`,
    }
    expect((await here.ok('endOtherSessions')).ended).toBeGreaterThan(0)
    // A program goes on until its own token is ended.
    expect((await machine.raw('GET', '/api/v1/session', undefined, program)).status).toBe(200)
    expect([(await here.send('session')).status, (await there.send('session')).status]).toEqual([
      200, 401,
    ])
    // Nobody ends what is another's.
    const foreign = (await office.ok('mySessions')).items[0]!
    expect((await here.send('endMySession', { params: { session: foreign.id } })).status).toBe(404)
  })
  it('another password ends all other sessions, and the old one is worth nothing', async () => {
    const email = 'gwil@demo.test'
    const [here, there] = [await signedIn({ email }), await signedIn({ email })]
    const change = (current: string, next: string) =>
      here.send('changePassword', { body: { current, next } })
    expect((await change('not it', 'a long new password')).body.errors?.[0]?.path).toBe('current')
    expect((await change('open-ledger', 'short')).body.errors?.[0]?.path).toBe('next')
    expect(await change('open-ledger', 'a long new password')).toMatchObject({
      status: 200,
      body: { ended: 1 },
    })
    expect([(await here.send('session')).status, (await there.send('session')).status]).toEqual([
      200, 401,
    ])
    expect(
      (await from('192.0.2.90').send('signIn', { body: { email, password: 'open-ledger' } }))
        .status,
    ).toBe(401)
    expect((await change('a long new password', 'open-ledger-again')).status).toBe(200)
  })
  it('a password that is being changed opens nothing: whoever signs in with the old one meanwhile is out again', async () => {
    const email = 'piet@demo.test'
    const [[{ hash }]] = (await db.query(
      'SELECT password_hash AS hash FROM people WHERE email = ?',
      [email],
    )) as unknown as [[{ hash: string }]]
    const here = await signedIn({ email })
    let [old, turn] = ['open-ledger', 0]
    for (; turn < 4; turn++) {
      const next = `another password ${turn}`
      const racers = [1, 2, 3].map((n) => from(`192.0.2.${100 + 10 * turn + n}`))
      const [changed] = await Promise.all([
        here.send('changePassword', { body: { current: old, next } }),
        ...racers.map((client) => client.send('signIn', { body: { email, password: old } })),
      ])
      expect(changed!.status).toBe(200)
      for (const client of racers)
        expect((await client.send('session')).status, `turn ${turn}`).toBe(401)
      old = next
    }
    expect((await here.send('session')).status).toBe(200)
    await db.query('UPDATE people SET password_hash = ? WHERE email = ?', [hash, email])
  })
  it('a stream ends with the session that opened it', async () => {
    const client = await signedIn('dispatch')
    const stream = await fetch(`${base}/api/v1/live`, { headers: { cookie: client.cookie } })
    const reader = stream.body!.getReader()
    expect(Buffer.from((await reader.read()).value!).toString()).toContain('hello')
    await client.ok('signOut')
    let over = false
    while (!over) over = (await reader.read()).done
    expect(over).toBe(true)
  })
  it('has a limit of open streams', async () => {
    const client = await signedIn('dispatch')
    const stop = new AbortController()
    const streams = []
    for (let i = 0; i < 13; i++)
      streams.push(
        await fetch(`${base}/api/v1/live`, {
          headers: { cookie: client.cookie },
          signal: stop.signal,
        }),
      )
    expect(streams.map((s) => s.status)).toEqual([...Array.from({ length: 12 }, () => 200), 429])
    stop.abort()
  })
  it('a customer’s link is withdrawn, and another one made', async () => {
    const w = await somethingToBill(office)
    const invoice = await office.ok('makeInvoice', {
      params: { id: w.workOrderId },
      body: { id: id() },
    })
    const open = async (link: string) =>
      (await new Client().send('publicInvoice', { params: { token: link.split('/i/')[1]! } }))
        .status
    expect(await open(invoice.link)).toBe(200)
    const none = await office.ok('withdrawLink', { params: { id: invoice.id } })
    expect([none.link, none.linkUntil, await open(invoice.link)]).toEqual(['', null, 404])
    const again = await office.ok('renewLink', { params: { id: invoice.id } })
    expect([await open(invoice.link), await open(again.link)]).toEqual([404, 200])
  })
})
describe('a transaction', () => {
  it('has none inside it', async () => {
    await expect(transaction(() => transaction(async () => 1))).rejects.toThrow(
      'inside a transaction',
    )
  })
  it('does not wait for a connection without end, and background work does not wait for requests', async () => {
    let release = () => {}
    const held = new Promise<void>((done) => {
      release = done
    })
    const holding = Array.from({ length: 20 }, () => transaction(() => held))
    await expect(transaction(async () => 1)).rejects.toMatchObject({ code: 'busy', status: 503 })
    expect(await inBackground((tx) => tx.row('SELECT 1 AS yes'))).toEqual({ yes: 1 })
    release()
    await Promise.all(holding)
  })
})
describe('the request form', () => {
  const post = (body: string, headers: Record<string, string> = {}) =>
    fetch(`${base}/request`, {
      method: 'POST',
      redirect: 'manual',
      headers: {
        'Content-Type': 'application/x-www-form-urlencoded',
        'X-Forwarded-For': '192.0.2.70',
        ...headers,
      },
      body,
    })
  it('keeps what it asks for and nothing else, at its lengths, and says what was wrong', async () => {
    const fields = new URLSearchParams({
      name: 'n'.repeat(900),
      problem: 'It drips',
      evil: 'x'.repeat(4000),
      ...Object.fromEntries(Array.from({ length: 20 }, (_, i) => [`more${i}`, 'y'])),
    })
    const reply = await post(fields.toString())
    const form = new URL(reply.headers.get('location')!, base).searchParams.get('form')!
    const [[row]] = (await db.query('SELECT fields FROM sent_forms WHERE id = ?', [
      form,
    ])) as unknown as [[{ fields: string | Record<string, string> }]]
    const kept = (typeof row.fields === 'string' ? JSON.parse(row.fields) : row.fields) as Record<
      string,
      string
    >
    expect(Object.keys(kept).sort()).toEqual([
      'email',
      'line1',
      'name',
      'phone',
      'postcode',
      'problem',
      'town',
      'wanted',
    ])
    expect(kept.name).toHaveLength(160)
    const back = await new Client().ok('requestForm', { query: { form } })
    expect(back.fields.find((f) => f.name === 'problem')?.value).toBe('It drips')
  })
  it('takes no form that is larger than the form is', async () => {
    expect((await post(`name=${'x'.repeat(60_000)}`, { Accept: 'application/json' })).status).toBe(
      413,
    )
    expect(
      (await post('stamp=&name=A&name=B&constructor=x&__proto__=y', { Accept: 'application/json' }))
        .status,
    ).toBe(422)
  })
  it('does not need the index of callers', async () => {
    expect(await count('SELECT COUNT(*) AS n FROM sent_forms')).toBeLessThanOrEqual(500)
    expect((await new Client().send('requestForm')).status).toBe(200)
  })
})
describe('at the same moment', () => {
  const DAY = '2026-12-09'
  const free = async () => {
    const schedule = await office.ok('schedule', { query: { date: DAY } })
    const person = schedule.technicians.find(
      (t) =>
        t.working.length && !t.goesWith && !schedule.visits.some((v) => v.technicianId === t.id),
    )
    return {
      technicianId: (person ?? schedule.technicians[0]!).id,
      startAt: `${DAY}T19:00:00.000Z`,
    }
  }
  it('ten who book one free time get it once', async () => {
    const { technicianId } = await free()
    const match = await callerNamed(office, 'lowfold')
    const book = () =>
      office.send('bookCall', {
        params: { id: id() },
        body: {
          workOrderId: id(),
          visitId: id(),
          customerId: match.customerId,
          siteId: match.sites[0]!.id,
          problem: 'At once',
          technicianId,
          date: DAY,
          start: '10:00',
          durationSeconds: 3600,
          override: false,
        },
      })
    const replies = await Promise.all(Array.from({ length: 10 }, book))
    expect(replies.filter((r) => r.status === 200)).toHaveLength(1)
    expect(new Set(replies.filter((r) => r.status !== 200).map((r) => r.body.code))).toEqual(
      new Set(['placement_warning']),
    )
  })
  it('eight visits that are put on one time take it once', async () => {
    const { technicianId } = await free()
    const visits = await Promise.all(Array.from({ length: 8 }, () => somethingToBill(office)))
    const replies = await Promise.all(
      visits.map((v) =>
        office.send('placeVisit', {
          params: { id: v.visitId },
          body: {
            version: 1,
            technicianId,
            startAt: `${DAY}T19:00:00.000Z`,
            durationSeconds: 3600,
            override: false,
          },
        }),
      ),
    )
    expect(replies.filter((r) => r.status === 200)).toHaveLength(1)
  })
  it('further visits at one time, and a visit that comes back onto it, are refused but one', async () => {
    const { technicianId } = await free()
    const startAt = `${DAY}T20:30:00.000Z`
    const visits = await Promise.all(Array.from({ length: 4 }, () => somethingToBill(office)))
    const further = visits.map((v) => ({ of: v.visitId, id: id() }))
    const replies = await Promise.all(
      further.map((f) =>
        office.send('furtherVisit', {
          params: { id: f.of },
          body: { id: f.id, version: 1, technicianId, startAt, durationSeconds: 1800 },
        }),
      ),
    )
    expect(replies.filter((r) => r.status === 200)).toHaveLength(1)
    const won = further[replies.findIndex((r) => r.status === 200)]!
    const cancelled = await office.ok('cancelVisit', {
      params: { id: won.id },
      body: { version: 1, cancelled: true, reason: 'test' },
    })
    const next = await office.ok('placeVisit', {
      params: { id: visits[0]!.visitId },
      body: {
        version: (
          await office.ok('workOrder', { params: { id: visits[0]!.workOrderId } })
        ).visits.find((v) => v.id === visits[0]!.visitId)!.version,
        technicianId,
        startAt,
        durationSeconds: 1800,
        override: false,
      },
    })
    expect(Date.parse(next.startAt!)).toBe(Date.parse(startAt))
    expect(
      (
        await office.send('cancelVisit', {
          params: { id: won.id },
          body: { version: cancelled.version, cancelled: false },
        })
      ).body.code,
    ).toBe('placement_warning')
  })
  it('two who take the money for one invoice take it once', async () => {
    const w = await somethingToBill(office)
    const invoice = await office.ok('makeInvoice', {
      params: { id: w.workOrderId },
      body: { id: id() },
    })
    const pay = () =>
      books.send('pay', {
        body: {
          id: id(),
          customerId: w.customerId,
          method: 'cash',
          amount: invoice.open.amount,
          invoiceIds: [invoice.id],
          shownOpen: invoice.open.amount,
        },
      })
    const replies = await Promise.all([pay(), pay(), pay()])
    expect(statuses(replies)).toEqual([200, 409, 409])
    expect(replies.filter((r) => r.status === 409).map((r) => r.body.code)).toEqual([
      'already_paid',
      'already_paid',
    ])
  })
  it('five pages for one card payment are one charge', async () => {
    const w = await somethingToBill(office)
    const invoice = await office.ok('makeInvoice', {
      params: { id: w.workOrderId },
      body: { id: id() },
    })
    const token = invoice.link.split('/i/')[1]!
    const pages = await Promise.all(
      Array.from({ length: 5 }, () => new Client().ok('payByCard', { params: { token } })),
    )
    expect(new Set(pages.map((p) => p.url)).size).toBe(1)
  })
})
describe('money', () => {
  const CARD = '9000000000000019'
  const invoiced = async () => {
    const w = await somethingToBill(office)
    return {
      ...w,
      invoice: await office.ok('makeInvoice', {
        params: { id: w.workOrderId },
        body: { id: id() },
      }),
    }
  }
  const pay = (body: object) => books.send('pay', { body: { id: id(), method: 'cash', ...body } })
  it('that is not for this customer’s open invoice is never taken silently', async () => {
    const a = await invoiced()
    const other = (
      await books.ok('invoices', { query: { state: 'open', limit: '50' } })
    ).items.find((i) => i.customerId !== a.customerId)!
    expect(
      await pay({ customerId: a.customerId, amount: '5.00', invoiceIds: [other.id] }),
    ).toMatchObject({ status: 422, body: { errors: [{ path: 'invoiceIds[0]' }] } })
    expect(
      await pay({ customerId: a.customerId, amount: '5.00', invoiceIds: [id()] }),
    ).toMatchObject({ status: 422 })
    expect(
      (await pay({ customerId: a.customerId, amount: '99999999999', invoiceIds: [a.invoice.id] }))
        .body,
    ).toMatchObject({ code: 'more_than_open', open: a.invoice.open })
    expect(
      (
        await pay({
          customerId: a.customerId,
          amount: '5.00',
          invoiceIds: [a.invoice.id],
          shownOpen: '7.00',
        })
      ).body,
    ).toMatchObject({ code: 'open_changed', shown: { amount: '7.00' }, open: a.invoice.open })
  })
  it('for one invoice that is named twice pays it once', async () => {
    const { customerId, invoice } = await invoiced()
    const twice = (Number(invoice.open.amount) * 1.5).toFixed(2)
    const reply = await pay({
      customerId,
      amount: twice,
      invoiceIds: [invoice.id, invoice.id],
      mayLeaveCredit: true,
    })
    expect(reply.body).toMatchObject({
      applied: [{ amount: invoice.open }],
      left: { amount: (Number(twice) - Number(invoice.open.amount)).toFixed(2) },
    })
  })
  it('that came before its invoice is a credit until its day: the ageing agrees with the books in between', async () => {
    const { customerId, invoice } = await invoiced()
    await books.ok('pay', {
      body: {
        id: id(),
        customerId,
        method: 'cash',
        amount: invoice.open.amount,
        invoiceIds: [invoice.id],
        receivedOn: '2026-11-20',
      },
    })
    for (const on of ['2026-11-19', '2026-11-20', '2026-11-22', '2026-11-24'])
      expect((await books.ok('unpaid', { query: { on } })).agrees, on).toBe(true)
  })
  it('by a card that is approved after somebody paid goes back by itself, and the worklist says so', async () => {
    const { customerId, invoice } = await invoiced()
    const { url } = await new Client().ok('payByCard', {
      params: { token: invoice.link.split('/i/')[1]! },
    })
    await books.ok('pay', {
      body: {
        id: id(),
        customerId,
        method: 'cash',
        amount: invoice.open.amount,
        invoiceIds: [invoice.id],
      },
    })
    await fetch(url, {
      method: 'POST',
      redirect: 'manual',
      headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
      body: `number=${CARD}`,
    })
    const notice = await until(async () =>
      (await books.ok('unpaid')).notices.find((n) => n.invoiceId === invoice.id && n.done),
    )
    expect(notice.text).toContain('went back to the card')
    expect((await books.ok('invoice', { params: { id: invoice.id } })).payments).toHaveLength(1)
  })
})
describe('money that goes back', () => {
  it('is noted as gone only on the terminal’s word, and spoken of until it is', async () => {
    const { workOrderId } = await somethingToBill(office)
    const invoice = await books.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id(), to: [] },
    })
    // A charge of which the terminal knows nothing.
    const chargeId = id()
    await db.query(
      `INSERT INTO card_charges (id, invoice_id, amount_minor, state, created_at, settled_at) VALUES (?, ?, 100, 'refunding', UTC_TIMESTAMP(3), '2026-10-01 12:00:00')`,
      [chargeId, invoice.id],
    )
    await inBackground((tx) =>
      enqueue(tx, { kind: 'card.refund', key: chargeId, payload: { chargeId } }),
    )
    await until(
      async () =>
        (await count(
          `SELECT COUNT(*) AS n FROM jobs WHERE kind = 'card.refund' AND job_key = ? AND attempts > 0 AND error <> ''`,
          [chargeId],
        )) > 0,
    )
    const notice = (await books.ok('unpaid')).notices.find((n) => n.id === chargeId)!
    expect([notice.done, notice.text]).toEqual([
      false,
      expect.stringContaining('has not gone back'),
    ])
    await db.query(`DELETE FROM jobs WHERE job_key = ?`, [chargeId])
    await db.query(`UPDATE card_charges SET state = 'declined' WHERE id = ?`, [chargeId])
  })
})
describe('a slow peer', () => {
  const cameTo = async (begin: string) =>
    ((await (await fetch(`${process.env.MAIL_STANDIN}/mails`)).json()) as { to: string[] }[])
      .flatMap((m) => m.to)
      .filter((to) => to.startsWith(begin))
  it('that does not answer holds up neither a page, nor another act, nor another mail', async () => {
    const w = await somethingToBill(office)
    const MORE_THAN_PLACES = Array.from({ length: 9 }, (_, i) => `stall-${i}@example.com`)
    const invoice = await office.ok('makeInvoice', {
      params: { id: w.workOrderId },
      body: { id: id(), to: [MORE_THAN_PLACES[0]!] },
    })
    for (const address of MORE_THAN_PLACES.slice(1))
      await office.ok('sendInvoice', { params: { id: invoice.id }, body: { to: [address] } })
    const mails = async () => (await office.ok('invoice', { params: { id: invoice.id } })).messages
    await until(async () => (await cameTo('stall-')).length === MORE_THAN_PLACES.length)
    // While those mails are on their way nowhere:
    const token = invoice.link.split('/i/')[1]!
    expect((await new Client().send('publicInvoice', { params: { token } })).status).toBe(200)
    expect((await new Client().send('seenInvoice', { params: { token } })).status).toBe(200)
    const sent = await office.ok('sendInvoice', {
      params: { id: invoice.id },
      body: { to: ['quick@example.com'] },
    })
    expect(sent.sent).toBe(true)
    await until(async () =>
      (await mails()).some((m) => m.to === 'quick@example.com' && m.state === 'delivered'),
    )
    expect((await mails()).filter((m) => m.to.startsWith('stall-')).map((m) => m.state)).toEqual(
      MORE_THAN_PLACES.map(() => 'waiting'),
    )
    // Late as it is, its word counts: nothing leaves a second time.
    await fetch(`${process.env.MAIL_STANDIN}/behave`, { method: 'POST', body: '{}' })
    await until(async () => (await mails()).every((m) => m.state === 'delivered'))
    expect((await cameTo('stall-')).sort()).toEqual(MORE_THAN_PLACES)
  })
  it('that is silent is left within seconds, and no transaction waits for it', async () => {
    const silent = createServer(() => {}).listen(0, '127.0.0.1')
    await once(silent, 'listening')
    const before = process.env.CARD_URL
    process.env.CARD_URL = `http://127.0.0.1:${(silent.address() as AddressInfo).port}`
    const { ask } = await import('../../server/payments/terminal')
    await expect(ask('GET', '/charges/x')).rejects.toMatchObject({
      code: 'terminal_away',
      status: 503,
    })
    process.env.CARD_URL = before
    silent.close()
  })
})
describe('odd values', () => {
  const send = (body: unknown) =>
    office.raw(
      'POST',
      `/api/v1/calls/${id()}`,
      typeof body === 'string' ? body : JSON.stringify(body),
    )
  it('are refused by their kind, in one place, and never with a 500', async () => {
    expect(await send('{"draft":{},"__proto__":{"x":1}}')).toMatchObject({
      status: 400,
      body: { code: 'malformed' },
    })
    expect(await send('{"draft":{},"constructor":1}')).toMatchObject({ status: 400 })
    expect(await send({ draft: {}, summary: [[]] })).toMatchObject({
      status: 422,
      body: { errors: [{ path: 'summary' }] },
    })
    expect(await send({ draft: {}, summary: { toString: 'x' } })).toMatchObject({ status: 400 })
    expect(await send('{"draft":{},"summary":"\\ud800"}')).toMatchObject({
      status: 422,
      body: { errors: [{ path: 'summary' }] },
    })
    expect(await send({ draft: {}, summary: 'one\nline' })).toMatchObject({ status: 422 })
    expect(await send({ draft: {}, summary: 'turned \u202Eround' })).toMatchObject({ status: 422 })
    expect(await send({ draft: {}, summary: 'nothing\u0000here' })).toMatchObject({ status: 422 })
    expect((await office.raw('GET', '/api/v1/matches?q=a&q=b')).status).toBe(400)
    expect((await office.raw('GET', '/api/v1/matches?q=%ED%A0%80')).status).toBeLessThan(500)
  })
  it('in place of a day: one that no calendar has is nowhere', async () => {
    for (const day of ['2026-02-30', '2026-13-01', 'null', '2026-11-24T10:00']) {
      expect((await office.raw('GET', `/api/v1/visit-messages/${day}`)).status, day).toBe(404)
      expect((await office.raw('GET', `/api/v1/schedule/${day}/day-sheets.pdf`)).status, day).toBe(
        404,
      )
    }
  })
  it('in a firm’s own field end no search: values are of the kind of their field', async () => {
    const match = await callerNamed(office, 'lowfold')
    const { version } = await office.ok('customer', { params: { id: match.customerId } })
    const fieldId = id()
    await office.ok('keepField', {
      body: {
        id: fieldId,
        subject: 'customer',
        name: `Depth ${fieldId.slice(-4)}`,
        kind: 'number',
        choices: [],
        retired: false,
      },
    })
    const change = (custom: object) =>
      office.send('changeCustomer', { params: { id: match.customerId }, body: { version, custom } })
    for (const odd of [5, { a: 1 }, ['x'], 'deep'])
      expect((await change({ [fieldId]: odd })).status, JSON.stringify(odd)).toBe(422)
    expect((await change({ [id()]: 'x' })).status).toBe(422)
    await db.query('UPDATE customers SET custom = ? WHERE id = ?', [
      JSON.stringify({ [fieldId]: { a: 1 } }),
      match.customerId,
    ])
    expect((await office.ok('matches', { query: { q: 'lowfold' } })).items.length).toBeGreaterThan(
      0,
    )
    await db.query(`UPDATE customers SET custom = '{}' WHERE id = ?`, [match.customerId])
  })
  it('in a quantity: three decimals are kept, the fourth is refused', async () => {
    const { workOrderId } = await somethingToBill(office)
    const add = (quantity: string) =>
      office.send('addLines', {
        params: { id: workOrderId },
        body: { lines: [{ id: id(), name: 'Pipe', kind: 'other', quantity, unitPrice: '100' }] },
      })
    expect((await add('1.2345')).body.errors?.[0]?.path).toBe('lines[0].quantity')
    expect((await add('1.235')).status).toBe(200)
  })
  it('in a picture: it is drawn anew once, and one that claims millions of points is refused', async () => {
    const { workOrderId } = await somethingToBill(office)
    const put = (data: Buffer) =>
      office.send('addPhoto', {
        params: { id: workOrderId },
        body: { id: id(), data: data.toString('base64') },
      })
    const huge = await sharp({
      create: { width: 12_000, height: 12_000, channels: 3, background: 'white' },
      limitInputPixels: false,
    })
      .png({ compressionLevel: 9 })
      .toBuffer()
    expect(huge.length).toBeLessThan(1_000_000)
    expect(await put(huge)).toMatchObject({ status: 422, body: { code: 'not_a_picture' } })
    const turned = await sharp({
      create: { width: 3000, height: 100, channels: 3, background: 'white' },
    })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer()
    expect((await put(turned)).status).toBe(200)
    const { photos } = await office.ok('workOrder', { params: { id: workOrderId } })
    const kept = await sharp(
      (await office.send('photo', { params: { id: photos[0]!.id } })).bytes,
    ).metadata()
    expect([kept.height, kept.orientation, kept.exif]).toEqual([2400, undefined, undefined])
  })
})
describe('a technician', () => {
  it('reads no customer through a quote', async () => {
    const ines = await signedIn('technician')
    const work = (await ines.ok('fieldDay')).visits[0]!
    const foreign = await callerNamed(office, 'fenn orchard')
    const begin = (body: object) =>
      ines.send('beginQuote', {
        body: { id: id(), workOrderId: work.workOrderId, title: 'A quote', lines: [], ...body },
      })
    expect((await begin({ customerId: foreign.customerId })).status).toBe(404)
    expect((await begin({ siteId: foreign.sites[0]!.id })).status).toBe(404)
    const quote = await begin({})
    expect(quote.status).toBe(200)
    expect(
      (
        await ines.send('changeQuote', {
          params: { id: String(quote.body.id) },
          body: { version: quote.body.version, customerId: foreign.customerId },
        })
      ).status,
    ).toBe(404)
  })
})
