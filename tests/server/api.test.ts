import { createHash } from 'node:crypto'
import { beforeAll, describe, expect, it } from 'vitest'
import Ajv from 'ajv'
import sharp from 'sharp'
import addFormats from 'ajv-formats'
import { dereference, validate } from '@readme/openapi-parser'
import { routes, type RouteName } from '../../shared/api'
import type { Route } from '../../shared/schema'
import { migrate } from '../../server/db/migrate'
import { base, callerNamed, Client, database, id, signedIn, somethingToBill } from './client'

let owner: Client
let office: Client
beforeAll(async () => {
  owner = await signedIn('owner')
  office = await signedIn('office')
})
const table = Object.entries(routes) as [RouteName, Route][]

/** A way in for somebody who is here. */
async function doorOf(personId: string): Promise<string> {
  const token = id()
  const hash = createHash('sha256').update(token).digest('hex')
  const db = await database()
  await db.query(
    `INSERT INTO door_keys (hash, kind, person_id, expires_at) VALUES (?, 'forgotten', ?, '2099-01-01')`,
    [hash, personId],
  )
  await db.end()
  return token
}
describe('the OpenAPI document', () => {
  it('is valid 3.1 and names every route', async () => {
    const { body } = await owner.send('openapi')
    expect(await validate(structuredClone(body) as never)).toMatchObject({ valid: true })
    const named = Object.values(
      body.paths as Record<string, Record<string, { operationId: string }>>,
    ).flatMap((p) => Object.values(p).map((o) => o.operationId))
    expect(named.sort()).toEqual(table.map(([name]) => name).sort())
  })
  it('tells the truth: real answers fit it', async () => {
    const document = (await dereference(
      structuredClone((await owner.send('openapi')).body) as never,
    )) as unknown as {
      paths: Record<
        string,
        Record<
          string,
          {
            operationId: string
            responses: Record<string, { content: Record<string, { schema: object }> }>
          }
        >
      >
    }
    const ajv = new Ajv({ strict: false, allErrors: true })
    addFormats(ajv)
    const w = await somethingToBill(owner)
    const invoice = await owner.ok('makeInvoice', {
      params: { id: w.workOrderId },
      body: { id: id() },
    })
    const visit = (await owner.ok('schedule')).visits[0]!
    const params: Partial<Record<string, Record<string, string>>> = {
      customer: { id: w.customerId },
      caller: { id: w.customerId },
      mergePreview: { id: w.customerId },
      workOrder: { id: w.workOrderId },
      fieldVisit: { id: visit.id },
      invoice: { id: invoice.id },
      owing: { id: w.customerId },
      call: { id: (await owner.ok('calls')).items[0]!.id },
      publicInvoice: { token: invoice.link.split('/i/')[1]! },
    }
    const query: Partial<Record<RouteName, Record<string, string>>> = {
      matches: { q: 'hallam' },
      searchPriceBook: { q: 'tank' },
      find: { q: 'W-10' },
      tasks: { about: 'work', subjectId: w.workOrderId },
      mergePreview: { other: (await callerNamed(owner, 'hallam dairy')).customerId },
    }
    const plan = await owner.ok('beginPlan', {
      body: { id: id(), dates: ['2026-11-26'], seconds: 1 },
    })
    params.dayPlan = { id: plan.id }
    params.visitNotice = { id: visit.id }
    params.priceEntry = { id: (await owner.ok('priceBook')).items[0]!.id }
    params.reminders = { date: '2026-11-26' }
    const db = await database()
    const [[signed]] = (await db.query(
      `SELECT id FROM signatures WHERE hash <> '' LIMIT 1`,
    )) as unknown as [[{ id: string }]]
    await db.end()
    params.signedPaper = signed
    params.door = { token: await doorOf((await owner.ok('session')).person.id) }
    params.quote = { id: (await owner.ok('quotes')).items[0]!.id }
    params.quoteEarlier = params.quote
    const { items: sent } = await owner.ok('quotes', { query: { state: 'sent' } })
    const { link } = await owner.ok('quote', { params: { id: sent[0]!.id } })
    params.publicQuote = { token: link.split('/q/')[1]! }
    for (const name of ['customer', 'workOrder', 'invoice'])
      params[`${name}Earlier`] = params[name]!
    let checked = 0
    for (const [name, route] of table.filter(([, r]) => r.method === 'GET' && r.answer)) {
      const reply = await owner.send(name, { params: params[name], query: query[name] })
      expect(reply.status, name).toBe(200)
      const fits = ajv.compile(
        document.paths[route.path]!.get!.responses['200']!.content['application/json']!.schema,
      )
      expect(fits(reply.body), `${name}: ${JSON.stringify(fits.errors?.slice(0, 3))}`).toBe(true)
      checked++
    }
    expect(checked).toBeGreaterThan(15)
  })
})
describe('answers that screens share', () => {
  const shared = table.filter(([, r]) => r.shared)
  it('are the same for everybody who may ask', async () => {
    const [a, b] = [await signedIn('dispatch'), await signedIn('books')]
    for (const [name] of shared)
      expect((await a.send(name)).text, name).toBe((await b.send(name)).text)
    expect(shared.map(([name]) => name)).toContain('schedule')
    expect(shared.every(([, r]) => r.method === 'GET' && Boolean(r.may))).toBe(true)
  })
  it('never show what was before one’s own act, and say no to whoever may not ask', async () => {
    const { visitId } = await somethingToBill(office)
    for (let i = 0; i < 6; i++) {
      const visit = (await office.ok('schedule')).tray.find((v) => v.id === visitId)!
      const seconds = 1800 + i * 900
      const [, placed] = await Promise.all([
        office.ok('schedule'),
        office.ok('placeVisit', {
          params: { id: visitId },
          body: {
            version: visit.version,
            technicianId: null,
            startAt: null,
            durationSeconds: seconds,
            override: true,
          },
        }),
        office.ok('schedule'),
      ])
      expect((await office.ok('schedule')).tray.find((v) => v.id === visitId)).toMatchObject({
        durationSeconds: seconds,
        version: placed.version,
      })
    }
    expect((await new Client().send('schedule')).status).toBe(401)
    expect((await (await signedIn('technician')).send('schedule')).status).toBe(403)
  })
})
describe('bad input', () => {
  const NASTY: unknown[] = [
    '',
    '{',
    '[]',
    'null',
    '"text"',
    { id: 'x' },
    { amount: -1, version: 'x', lines: 'no', act: 'dance' },
    { name: 'x'.repeat(5000) },
    { id: `${id()}'; DROP TABLE people; --` },
    { date: '2026-99-99', startAt: 'yesterday', durationSeconds: 1e99 },
    { unknown: { deep: [1, [2, [3]]] } },
  ]
  for (const [name] of table.filter(([n, r]) => r.method !== 'GET' && n !== 'signOut')) {
    it(`${name}: gets 4xx with a sentence, never 500`, async () => {
      for (const body of NASTY) {
        const { status, body: problem, headers, text } = await owner.send(name, { body })
        expect(status, `${JSON.stringify(body).slice(0, 60)} → ${text.slice(0, 200)}`).toBeLessThan(
          500,
        )
        if (status !== 200) {
          expect(headers.get('content-type')).toContain('application/problem+json')
          expect(String(problem.detail)).toMatch(/\w.*\./)
        }
      }
    })
  }
  it('answers unknown addresses and methods', async () => {
    expect((await owner.raw('GET', '/api/v1/nowhere')).body.code).toBe('no_such_route')
    const wrong = await owner.raw('PATCH', '/api/v1/payments', {})
    expect([wrong.status, wrong.headers.get('allow')]).toEqual([405, 'POST, GET'])
  })
  it('refuses a body that is too large', async () =>
    expect(
      (await owner.send('saveCall', { body: { draft: {}, summary: 'x'.repeat(200_000) } })).status,
    ).toBe(413))
  it('takes names from everywhere as they are', async () => {
    const name = 'שלום Łukasz O’Brien 測試 <script>'
    const made = await office.ok('newCustomer', {
      body: { id: id(), siteId: id(), name, line1: '1 Test Way' },
    })
    expect(made.name).toBe(name)
    expect(
      (await office.ok('matches', { query: { q: 'łukasz' } })).items.map((m) => m.customerId),
    ).toContain(made.customerId)
  })
})
describe('lists', () => {
  const lists = [
    'customers',
    'workOrders',
    'invoices',
    'payments',
    'priceBook',
    'messages',
  ] as const
  it.each(lists)('%s: bounds its size', async (name) =>
    expect((await owner.send(name, { query: { limit: '201' } })).status).toBe(422),
  )
  it.each(lists)('%s: pages by cursor without losing or repeating a row', async (name) => {
    const seen: string[] = []
    let after: string | undefined
    let total = 0
    do {
      const page = (await owner.ok(name, {
        query: { limit: '200', ...(after ? { after } : {}) },
      })) as { items: { id: string }[]; next: string | null; total: number }
      seen.push(...page.items.map((i) => i.id))
      after = page.next ?? undefined
      total = page.total
    } while (after)
    expect(new Set(seen).size).toBe(seen.length)
    expect(seen).toHaveLength(total)
  })
  it('refuses a cursor or a sort that it does not know', async () => {
    expect((await owner.send('invoices', { query: { after: 'nonsense' } })).status).toBe(400)
    expect((await owner.send('invoices', { query: { sort: 'password' } })).status).toBe(422)
  })
})
describe('changes', () => {
  it('refuses a stale version with both states, and nothing is lost', async () => {
    const customerId = (await office.ok('matches', { query: { q: 'wren cottages' } })).items[0]!
      .customerId
    const before = await office.ok('customer', { params: { id: customerId } })
    await office.ok('changeCustomer', {
      params: { id: customerId },
      body: { version: before.version, officeNote: 'first' },
    })
    const stale = await owner.send('changeCustomer', {
      params: { id: customerId },
      body: { version: before.version, officeNote: 'second' },
    })
    expect([
      stale.status,
      stale.body.code,
      (stale.body.current as { officeNote: string }).officeNote,
      (stale.body.yours as { officeNote: string }).officeNote,
    ]).toEqual([409, 'stale', 'first', 'second'])
    expect((await office.ok('customer', { params: { id: customerId } })).officeNote).toBe('first')
  })
  it('does what two people do to one visit once, and tells the second', async () => {
    const visit = (await office.ok('schedule', { query: { date: '2026-11-25' } })).visits[0]!
    const move = (client: Client, minutes: number) =>
      client.send('placeVisit', {
        params: { id: visit.id },
        body: {
          technicianId: visit.technicianId,
          startAt: new Date(Date.parse(visit.startAt!) + minutes * 60_000).toISOString(),
          durationSeconds: visit.durationSeconds,
          version: visit.version,
          override: true,
        },
      })
    const replies = await Promise.all([move(office, 15), move(owner, 30)])
    expect(replies.map((r) => r.status).sort()).toEqual([200, 409])
  })
  it('warns before a clash, time off or the promised window is passed over, and goes on only when told', async () => {
    const day = await office.ok('schedule')
    const [a, b] = day.visits.filter(
      (v) => v.technicianId === day.technicians[0]!.id && v.state === 'planned',
    )
    const body = {
      technicianId: a!.technicianId,
      startAt: b!.startAt,
      durationSeconds: a!.durationSeconds,
      version: a!.version,
    }
    const refused = await office.send('placeVisit', { params: { id: a!.id }, body })
    expect([refused.status, refused.body.code]).toEqual([409, 'placement_warning'])
    expect((refused.body.warnings as { code: string }[]).map((w) => w.code)).toContain('clash')
    expect(
      (
        await office.send('placeVisit', {
          params: { id: a!.id },
          body: { ...body, override: true },
        })
      ).status,
    ).toBe(200)
    const trail = await office.ok('workOrder', { params: { id: a!.workOrderId } })
    expect(trail.history[0]!.text).toContain('in spite of')
  })
  it('lets only one visit of a person be open, and names it', async () => {
    const ines = await signedIn('technician')
    const day = await ines.ok('fieldDay')
    const next = day.visits.find((v) => v.state === 'planned')!
    const refused = await ines.send('clock', { params: { id: next.id }, body: { act: 'set_off' } })
    expect([refused.status, refused.body.code, refused.body.openVisitId]).toEqual([
      409,
      'another_open',
      day.openVisitId,
    ])
  })
  it('keeps a signature only for the total that was shown', async () => {
    const { workOrderId } = await somethingToBill(office)
    const image =
      'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
    const { price } = await office.ok('workOrder', { params: { id: workOrderId } })
    expect(
      (
        await office.send('sign', {
          params: { id: workOrderId },
          body: { id: id(), name: 'A', image, shownTotal: '1.00' },
        })
      ).body.code,
    ).toBe('price_changed')
    expect(
      (
        await office.send('sign', {
          params: { id: workOrderId },
          body: {
            id: id(),
            name: 'A',
            image: 'data:image/png;base64,PHNjcmlwdD4=',
            shownTotal: price.total.amount,
          },
        })
      ).body.code,
    ).toBe('not_a_picture')
    const signed = await office.ok('sign', {
      params: { id: workOrderId },
      body: { id: id(), name: 'A. Signer', image, shownTotal: price.total.amount },
    })
    expect([signed.signatures[0]!.name, signed.totals.promised.amount]).toEqual([
      'A. Signer',
      '100.00',
    ])
  })
  it('knows a picture by its content, not its name', async () => {
    const { workOrderId } = await somethingToBill(office)
    const put = (data: string) =>
      office.send('addPhoto', { params: { id: workOrderId }, body: { id: id(), data } })
    expect(
      (
        await put(
          `data:image/png;base64,${Buffer.from('<svg onload=alert(1)>').toString('base64')}`,
        )
      ).body.code,
    ).toBe('not_a_picture')
    expect(
      (
        await put(
          Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.alloc(5_100_000)]).toString(
            'base64',
          ),
        )
      ).status,
    ).toBe(413)
    // Its first bytes say picture, and the rest does not.
    expect(
      (
        await put(
          Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.alloc(100)]).toString('base64'),
        )
      ).body.code,
    ).toBe('not_a_picture')
    const real = await sharp({
      create: { width: 40, height: 30, channels: 3, background: '#1d5c49' },
    })
      .jpeg()
      .toBuffer()
    expect((await put(real.toString('base64'))).status).toBe(200)
  })
  it('books a call once: the second attempt is told what it became', async () => {
    const callId = id()
    const match = await callerNamed(office, 'lowfold')
    const book = (workOrderId: string) =>
      office.send('bookCall', {
        params: { id: callId },
        body: {
          workOrderId,
          visitId: id(),
          customerId: match.customerId,
          siteId: match.sites[0]!.id,
          problem: 'Once',
        },
      })
    const first = await book(id())
    const second = await book(id())
    expect([first.status, second.status, second.body.code, second.body.workOrderId]).toEqual([
      200,
      409,
      'already_booked',
      first.body.workOrderId,
    ])
  })
  it('keeps a half-filled call, and ends it only with a day to ring back', async () => {
    const callId = id()
    await office.ok('saveCall', {
      params: { id: callId },
      body: { draft: { query: 'somebody', problem: 'half' }, summary: 'somebody' },
    })
    expect((await office.ok('call', { params: { id: callId } })).draft.problem).toBe('half')
    expect(
      (
        await office.send('endCall', {
          params: { id: callId },
          body: { state: 'put_off', reason: 'asks' },
        })
      ).body.errors?.[0]?.path,
    ).toBe('callBackOn')
    await office.ok('endCall', {
      params: { id: callId },
      body: { state: 'put_off', reason: 'asks', callBackOn: '2026-11-30' },
    })
    expect((await office.ok('calls')).items.find((c) => c.id === callId)!.waiting).toContain(
      'Mon, Nov 30',
    )
  })
})
describe('live changes', () => {
  const listen = async (client: Client, last?: string, after = '') => {
    const stop = new AbortController()
    const response = await fetch(`${base}/api/v1/live${after && `?after=${after}`}`, {
      headers: { cookie: client.cookie, ...(last ? { 'Last-Event-ID': last } : {}) },
      signal: stop.signal,
    })
    const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
    let text = ''
    return {
      async until(found: RegExp) {
        while (!found.test(text)) {
          const { value, done } = await reader.read()
          if (done) break
          text += value
        }
        return found.exec(text)!
      },
      stop: () => stop.abort(),
    }
  }
  it('reach another browser, and resume after the last one seen', async () => {
    const other = await listen(owner)
    await other.until(/hello/)
    const { workOrderId } = await somethingToBill(office)
    const [, last] = await other.until(new RegExp(`id: (\\d+)\\n[^]*?${workOrderId}`))
    other.stop()
    const second = await somethingToBill(office)
    const resumed = await listen(owner, last)
    expect((await resumed.until(new RegExp(second.workOrderId)))[0]).toBe(second.workOrderId)
    resumed.stop()
  })
  it('begin after what the first answer of a window was read with', async () => {
    const answer = await fetch(`${base}/api/v1/session`, { headers: { cookie: owner.cookie } })
    const before = answer.headers.get('Last-Event-ID')!
    const { workOrderId } = await somethingToBill(office)
    const window = await listen(owner, undefined, before)
    expect((await window.until(new RegExp(workOrderId)))[0]).toBe(workOrderId)
    window.stop()
  })
  it('tell a technician that something changed, not what', async () => {
    const field = await listen(await signedIn('technician'))
    await field.until(/hello/)
    await somethingToBill(office)
    const [data] = await field.until(/data: \{[^\n]*/)
    field.stop()
    expect(data).toBe('data: {"subject":"something"}')
  })
})
describe('private links', () => {
  it('work without signing in, are hashed at rest, and a wrong one finds nothing', async () => {
    const { workOrderId } = await somethingToBill(office)
    const invoice = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id() },
    })
    const token = invoice.link.split('/i/')[1]!
    const page = await fetch(invoice.link)
    expect([page.status, (await page.text()).includes(invoice.paper.number)]).toEqual([200, true])
    expect((await fetch(`${base}/i/${token.slice(0, -3)}abc`)).status).toBe(404)
    const db = await database()
    const [rows] = (await db.execute('SELECT 1 FROM invoices WHERE token_hash = ?', [
      token,
    ])) as unknown as [unknown[]]
    await db.end()
    expect(rows).toEqual([])
    expect(
      (await new Client().send('publicInvoicePdf', { params: { token } })).text.slice(0, 5),
    ).toBe('%PDF-')
  })
})
describe('exports', () => {
  it.each(['invoices', 'payments', 'customers', 'price-book'])('%s opens as CSV', async (what) => {
    const { status, text } = await owner.send('exportCsv', { params: { what } })
    expect(status).toBe(200)
    expect(text.split('\r\n').length).toBeGreaterThan(20)
  })
  it('knows nothing else', async () =>
    expect((await owner.send('exportCsv', { params: { what: '__proto__' } })).status).toBe(404))
})
describe('migrations', () => {
  it('refuse a database that a newer version made', async () => {
    const db = await database()
    await db.query(
      "INSERT INTO schema_migrations (name, hash, applied_at) VALUES ('9999-from-the-future.sql', '', NOW(3))",
    )
    await expect(migrate(process.env.DATABASE_URL!, 'server/db/migrations')).rejects.toThrow(
      /newer version/,
    )
    await db.query("DELETE FROM schema_migrations WHERE name = '9999-from-the-future.sql'")
    await db.end()
    expect(await migrate(process.env.DATABASE_URL!, 'server/db/migrations')).toEqual([])
  })
})
describe('the demo company', () => {
  it('is as large and as untidy as it says', async () => {
    const db = await database()
    const one = async (sql: string) =>
      Number(((await db.query(sql)) as unknown as [[{ n: number }]])[0][0]!.n)
    expect(
      await one('SELECT COUNT(*) AS n FROM price_entries WHERE kind = "task" AND code LIKE "T-%"'),
    ).toBe(400)
    expect(
      await one('SELECT COUNT(*) AS n FROM price_entries WHERE kind = "part" AND code LIKE "P-1%"'),
    ).toBe(900)
    expect(await one('SELECT COUNT(*) AS n FROM sites')).toBeGreaterThanOrEqual(160)
    expect(
      await one('SELECT COUNT(*) AS n FROM collection_notes WHERE kind = "dispute"'),
    ).toBeGreaterThan(0)
    expect(
      await one('SELECT COUNT(*) AS n FROM payments WHERE bounced_on IS NOT NULL'),
    ).toBeGreaterThan(0)
    await db.end()
  })
})
