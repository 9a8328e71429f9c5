// The floor of the server, piece by piece: which route an address is, kinds of values, pages of lists, where a write comes from, who asks, and
// what is said when something goes wrong.
import { createServer, type IncomingMessage } from 'node:http'
import type { AddressInfo } from 'node:net'
import { createApp, eventHandler, toNodeListener } from 'h3'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import * as yup from 'yup'
import { ERRORS } from '../../core/errors/errors'
import { InvalidValue } from '../../core/errors/InvalidValue'
import { LedgerError } from '../../core/errors/LedgerError'
import { addressOf, proxyList } from '../../server/http/address'
import { fewAtOnce } from '../../server/http/limits'
import { checkBody, checkQuery } from '../../server/http/kinds'
import { matchRoute } from '../../server/http/match'
import { refuseForeign, refuseForms } from '../../server/http/origin'
import { pageOf, paging } from '../../server/http/paging'
import { problemOf } from '../../server/http/problem'
import { routes } from '../../shared/api'
import { list, obj, text, type Route } from '../../shared/schema'

afterEach(() => vi.unstubAllEnvs())
const refusalOf = (work: () => unknown): LedgerError => {
  try {
    work()
  } catch (error) {
    return error as LedgerError
  }
  throw new Error('it was not refused')
}

describe('an address', () => {
  const ALL = Object.entries(routes) as [string, Route][]
  const id = '0192d4e0-0000-7000-8000-00000000002a'
  it.each(ALL)('of %s leads to it', (name, route) => {
    const path = route.path.replace(/\{(\w+)\}/g, (_, part: string) =>
      part === 'date' ? '2026-11-24' : id,
    )
    expect(matchRoute(route.method, path)).toMatchObject({ name })
  })
  it('with a fixed ending is not taken for an identifier', () =>
    expect(matchRoute('GET', `/invoices/${id}.pdf`)).toMatchObject({
      name: 'invoicePdf',
      params: { id },
    }))
  it('that is known under another method says which', () => {
    const found = matchRoute('DELETE', '/customers')
    expect(found && 'allowed' in found && found.allowed.includes('GET')).toBe(true)
  })
  it.each(['/nothing', '/customers/', '', '/customers/a/b/c/d', '/customers%2F1'])(
    'that nobody knows is none: “%s”',
    (path) => expect(matchRoute('GET', path)).toBeNull(),
  )
  test.prop([fc.webPath()])('of any form is answered, and breaks nothing', (path) => {
    expect(() => matchRoute('GET', path)).not.toThrow()
  })
})

describe('values that are sent', () => {
  const schema = obj({
    name: text(40),
    note: text(2000),
    count: yup.number(),
    on: yup.boolean(),
    lines: list(obj({ name: text(40) })),
  })
  const faults = (body: unknown) =>
    refusalOf(() => checkBody(schema, body)).errors?.map(({ path }) => path)
  it('of their kinds are taken as they are', () =>
    expect(() =>
      checkBody(schema, { name: 'a', count: 1, on: false, lines: [{ name: 'b' }], note: 'x\ny' }),
    ).not.toThrow())
  it('that are left out, or none, are for the schema to say', () =>
    expect(() => checkBody(schema, { name: null, count: undefined })).not.toThrow())
  it.each([
    [{ name: 5 }, 'name'],
    [{ name: {} }, 'name'],
    [{ name: ['a'] }, 'name'],
    [{ count: '5' }, 'count'],
    [{ count: Infinity }, 'count'],
    [{ on: 'true' }, 'on'],
    [{ lines: {} }, 'lines'],
    [{ lines: [{ name: 'a' }, { name: 7 }] }, 'lines[1].name'],
    [{ lines: ['a'] }, 'lines[0]'],
  ])('of another kind are refused at their place: %j', (body, path) =>
    expect(faults(body)).toEqual([path]),
  )
  it('say all that is wrong, not the first alone', () =>
    expect(faults({ name: 5, count: 'x' })).toEqual(['name', 'count']))
  it.each(['a\nb', 'a\u0000b', 'a\u202eb', 'a\u200bb'.replace('\u200b', '\u2066')])(
    'of one line hold no sign that a line has not: %j',
    (name) => expect(faults({ name })).toEqual(['name']),
  )
  it('of several lines hold line breaks, and nothing that turns their direction', () => {
    expect(() => checkBody(schema, { note: 'a\n\tb' })).not.toThrow()
    expect(faults({ note: 'a\u202eb' })).toEqual(['note'])
  })
  it('hold no half of a sign', () => expect(faults({ name: '\ud800' })).toEqual(['name']))
  it.each(['__proto__', 'constructor', 'toString', 'hasOwnProperty'])(
    'are named by nothing that every object has: %s',
    (name) => {
      const body = JSON.parse(`{"lines": [{"${name}": 1}]}`) as unknown
      expect(refusalOf(() => checkBody(schema, body)).code).toBe('malformed')
    },
  )
  it('are not nested without end', () => {
    let deep: unknown = 1
    for (let i = 0; i < 60; i++) deep = [deep]
    expect(refusalOf(() => checkBody(schema, { lines: deep })).code).toBe('malformed')
  })
  test.prop([fc.jsonValue()])('of any form are taken or refused, and break nothing', (body) => {
    try {
      checkBody(schema, body)
    } catch (error) {
      expect(error).toBeInstanceOf(LedgerError)
      expect(ERRORS[(error as LedgerError).code][0]).toBeLessThan(500)
    }
  })
  it('in an address stand there once, and are texts', () => {
    expect(() => checkQuery({ q: 'vane' })).not.toThrow()
    expect(refusalOf(() => checkQuery({ q: ['a', 'b'] })).message).toContain('stands twice')
    expect(refusalOf(() => checkQuery({ q: 'a\u0000' })).errors![0]!.path).toBe('q')
    expect(refusalOf(() => checkQuery({ constructor: 'a' })).code).toBe('malformed')
  })
})

describe('pages of a list', () => {
  const SORTS = ['name', 'due']
  const row = (n: number) => ({ id: `r${n}`, key: `k${String(n).padStart(3, '0')}` })
  it('are fifty rows long where nobody says', () =>
    expect(paging({}, SORTS, '-due')).toEqual({
      sort: 'due',
      descending: true,
      limit: 50,
      after: null,
    }))
  it('follow each other without losing or repeating a row', () => {
    const all = Array.from({ length: 23 }, (_, n) => row(n))
    const seen: string[] = []
    let after: string | undefined
    do {
      const { limit, after: from } = paging({ limit: 5, after }, SORTS, 'name')
      const start = from ? all.findIndex((one) => one.id === from[1]) + 1 : 0
      const page = pageOf(all.slice(start, start + limit + 1), all.length, limit, (one) => one.id)
      seen.push(...page.items)
      after = page.next ?? undefined
    } while (after)
    expect(seen).toEqual(all.map((one) => one.id))
  })
  it('end where there is no further row', () =>
    expect(pageOf([row(1)], 1, 1, (one) => one.id).next).toBeNull())
  it.each([
    'nonsense',
    Buffer.from('[1]').toString('base64url'),
    Buffer.from('{}').toString('base64url'),
  ])('begin at no cursor that was not made here: %s', (after) =>
    expect(refusalOf(() => paging({ after }, SORTS, 'name')).code).toBe('bad_cursor'),
  )
  it('are in no order that the list does not have', () => {
    const problem = refusalOf(() => paging({ sort: '-owed' }, SORTS, 'name'))
    expect([problem.code, problem.errors![0]!.path]).toEqual(['unknown_sort', 'sort'])
  })
})

/** What a server of its own answers to a request, by a function of the event. */
async function served<T>(
  work: (event: Parameters<typeof addressOf>[0]) => T,
  headers: Record<string, string> = {},
): Promise<{ got?: T; refused?: string }> {
  const app = createApp().use(
    eventHandler((event) => {
      try {
        return { got: work(event) ?? null }
      } catch (error) {
        return { refused: (error as LedgerError).code }
      }
    }),
  )
  const server = createServer(toNodeListener(app))
  await new Promise<void>((up) => server.listen(0, '127.0.0.1', up))
  const { port } = server.address() as AddressInfo
  const { request } = await import('node:http')
  const answer = await new Promise<string>((resolve, reject) => {
    const asked = request(
      { port, host: '127.0.0.1', method: 'POST', headers },
      (response: IncomingMessage) => {
        let body = ''
        response.on('data', (piece) => (body += String(piece)))
        response.on('end', () => resolve(body))
      },
    )
    asked.on('error', reject)
    asked.end()
  })
  await new Promise((down) => server.close(down))
  return JSON.parse(answer) as { got?: T; refused?: string }
}

describe('where a write comes from', () => {
  const from = (headers: Record<string, string>) =>
    served(refuseForeign, { host: 'ledger.example', ...headers })
  it.each<[Record<string, string>, string]>([
    [{}, 'a program says nothing'],
    [{ origin: 'http://ledger.example' }, 'our own page'],
    [
      { 'sec-fetch-site': 'same-origin', origin: 'http://ledger.example' },
      'our own page, said twice',
    ],
    [{ 'sec-fetch-site': 'none' }, 'somebody typed the address'],
  ])('is ours: %j, %s', async (headers) => expect((await from(headers)).refused).toBeUndefined())
  it.each<[Record<string, string>]>([
    [{ origin: 'http://elsewhere.example' }],
    [{ origin: 'null' }],
    [{ 'sec-fetch-site': 'cross-site' }],
    [{ 'sec-fetch-site': 'same-site', origin: 'http://other.ledger.example' }],
    [{ origin: 'not an address' }],
  ])('is another site’s: %j', async (headers) =>
    expect((await from(headers)).refused).toBe('foreign_origin'),
  )
  it.each(['application/json', 'application/problem+json', 'application/json; charset=utf-8'])(
    'is JSON: %s',
    async (type) =>
      expect((await served(refuseForms, { 'content-type': type })).refused).toBeUndefined(),
  )
  it.each([
    'text/plain',
    'application/x-www-form-urlencoded',
    'multipart/form-data',
    'application/jsonp',
  ])('is no form of another site: %s', async (type) =>
    expect((await served(refuseForms, { 'content-type': type })).refused).toBe('wrong_kind'),
  )
})

describe('who asks', () => {
  const seenAs = async (told: string) => (await served(addressOf, { 'x-forwarded-for': told })).got
  it('is the nearest that is no proxy of ours, whatever was written before it', async () => {
    vi.stubEnv('OPEN_LEDGER_TRUSTED_PROXIES', '127.0.0.1')
    expect(await seenAs('203.0.113.7')).toBe('203.0.113.7')
    expect(await seenAs('198.51.100.1, 203.0.113.7')).toBe('203.0.113.7')
  })
  it('is the proxy where what it says is no address', async () => {
    vi.stubEnv('OPEN_LEDGER_TRUSTED_PROXIES', '127.0.0.1')
    expect(await seenAs('a robot')).toBe('127.0.0.1')
  })
  it('is written plainly where it came by the newer way', async () => {
    vi.stubEnv('OPEN_LEDGER_TRUSTED_PROXIES', '127.0.0.1')
    expect(await seenAs('::ffff:203.0.113.7')).toBe('203.0.113.7')
  })
  it('is whoever is at the other end where no proxy is trusted', async () => {
    vi.stubEnv('OPEN_LEDGER_TRUSTED_PROXIES', '')
    expect(await seenAs('203.0.113.7')).toBe('127.0.0.1')
  })
  it('a list of proxies is addresses and networks, of both kinds', () => {
    const proxies = proxyList('10.0.0.0/8, 192.0.2.1, 2001:db8::/32')
    expect(proxies.check('10.1.2.3', 'ipv4')).toBe(true)
    expect(proxies.check('192.0.2.2', 'ipv4')).toBe(false)
    expect(proxies.check('2001:db8::7', 'ipv6')).toBe(true)
  })
  it('a list that names something else is refused when it is read', () =>
    expect(() => proxyList('10.0.0.0/8, the balancer')).toThrow('names “the balancer”'))
})

describe('what goes wrong', () => {
  const database = (over: object) => Object.assign(new Error('MariaDB said no'), over)
  it('of ours keeps its code, its sentence and its fields', () => {
    const error = new LedgerError('stale', 'Somebody was faster.', { extra: { current: 3 } })
    expect(problemOf(error, 'r-1')).toMatchObject({
      code: 'stale',
      status: 409,
      title: 'In conflict',
      detail: 'Somebody was faster.',
      current: 3,
    })
  })
  it.each([
    [database({ code: 'ER_DUP_ENTRY', sqlMessage: "for key 'customers.PRIMARY'" }), 'exists', 409],
    [database({ code: 'ER_DUP_ENTRY', sqlMessage: "for key 'code'" }), 'code_taken', 409],
    [
      database({ code: 'ER_DUP_ENTRY', sqlMessage: "for key 'territories.name'" }),
      'name_taken',
      409,
    ],
    [database({ code: 'ER_DUP_ENTRY', sqlMessage: "for key 'people.email'" }), 'mail_taken', 409],
    [database({ code: 'ER_DUP_ENTRY', sqlMessage: "for key 'running_for'" }), 'clock_running', 409],
    [database({ code: 'ER_DUP_ENTRY', sqlMessage: "for key 'something'" }), 'twice', 409],
    [database({ code: 'ER_NO_REFERENCED_ROW_2' }), 'unknown_reference', 422],
    [database({ code: 'ER_DATA_TOO_LONG' }), 'invalid', 422],
    [database({ errno: 4025 }), 'invalid', 422],
    [database({ code: 'ECONNREFUSED' }), 'database_away', 503],
    [database({ code: 'ER_LOCK_DEADLOCK' }), 'database_away', 503],
    [
      database({ message: "Can't add new command when connection is in closed state" }),
      'database_away',
      503,
    ],
  ])('in the database is said in our words: %#', (error, code, status) => {
    const problem = problemOf(error, 'r-1')
    expect([problem.code, problem.status]).toEqual([code, status])
    expect(problem.detail).not.toContain('MariaDB')
  })
  it('a value that core refuses is not our mistake', () =>
    expect(
      problemOf(new InvalidValue('The discount is larger than the lines.'), 'r-1'),
    ).toMatchObject({
      status: 422,
      detail: 'The discount is larger than the lines.',
    }))
  it('that nobody thought of says nothing of what it was', () => {
    const problem = problemOf(new Error('SELECT password_hash FROM people'), 'r-1')
    expect(problem.status).toBe(500)
    expect(JSON.stringify(problem)).not.toContain('password_hash')
  })
  it('has a status and a title for each code that there is', () => {
    for (const code of Object.keys(ERRORS) as (keyof typeof ERRORS)[]) {
      const problem = problemOf(new LedgerError(code, 'A sentence.'), 'r-1')
      expect([problem.code, problem.status]).toEqual([code, ERRORS[code][0]])
      expect(problem.title).toBeTruthy()
    }
  })
})

describe('few at once', () => {
  it('lets so many of one key begin, others of another, and the next once one has ended', async () => {
    const ends: (() => void)[] = []
    const act = () => new Promise<string>((end) => ends.push(() => end('done')))
    const asked = ['a', 'a', 'a', 'b'].map((key) => fewAtOnce(key, 2, act))
    expect(ends).toHaveLength(3)
    expect(await asked[2]).toBeNull()
    ends[0]!()
    expect(await asked[0]).toBe('done')
    const next = fewAtOnce('a', 2, act)
    expect(ends).toHaveLength(4)
    for (const end of ends) end()
    expect(await Promise.all([asked[1], asked[3], next])).toEqual(['done', 'done', 'done'])
  })
  it('counts what failed as ended', async () => {
    const fail = () => fewAtOnce('c', 1, () => Promise.reject(new Error('no')))
    await expect(fail()).rejects.toThrow('no')
    await expect(fail()).rejects.toThrow('no')
  })
})
