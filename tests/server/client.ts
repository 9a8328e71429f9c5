// A signed-in client of the running app, and the database behind it.
import { execFileSync } from 'node:child_process'
import { v7 } from 'uuid'
import mysql from 'mysql2/promise'
import { routes, type Answer, type RouteName } from '../../shared/api'
import { inContext } from '../../server/http/context'
import { refreshWorkOrder } from '../../server/visits/account'
import type { Route } from '../../shared/schema'

export const base = process.env.TEST_URL!
export const id = (): string => v7()
export const LOGINS = {
  owner: 'owner@demo.test',
  office: 'office@demo.test',
  dispatch: 'dispatch@demo.test',
  books: 'books@demo.test',
  technician: 'ines@demo.test',
} as const
export interface Reply {
  status: number
  body: Record<string, unknown> & { code?: string; errors?: { path: string; message: string }[] }
  text: string
  bytes: Buffer
  headers: Headers
}
export class Client {
  cookie = ''
  /** where it comes from, as a proxy that is trusted says; empty for this machine */
  address = ''

  async raw(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Reply> {
    const response = await fetch(`${base}${path}`, {
      method,
      redirect: 'manual',
      headers: {
        ...(this.cookie ? { cookie: this.cookie } : {}),
        ...(this.address ? { 'X-Forwarded-For': this.address } : {}),
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...headers,
      },
      body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
    })
    const set = response.headers.get('set-cookie')
    if (set) this.cookie = set.split(';')[0]!
    const bytes = Buffer.from(await response.arrayBuffer())
    const text = bytes.toString('utf8')
    let parsed = {}
    try {
      parsed = JSON.parse(text) as object
    } catch {
      /* not JSON */
    }
    return { status: response.status, body: parsed, text, bytes, headers: response.headers }
  }

  send(
    name: RouteName,
    input: {
      params?: Record<string, string>
      query?: Record<string, string>
      body?: unknown
      key?: string
    } = {},
  ): Promise<Reply> {
    const route = routes[name] as Route
    const path = route.path.replace(/\{(\w+)\}/g, (_, k: string) =>
      encodeURIComponent(input.params?.[k] ?? id()),
    )
    return this.raw(
      route.method,
      `/api/v1${path}${input.query ? `?${new URLSearchParams(input.query)}` : ''}`,
      route.method === 'GET' ? undefined : (input.body ?? {}),
      input.key ? { 'Idempotency-Key': input.key } : {},
    )
  }

  /** Sends, and fails the test with what the server said when it is refused. */
  async ok<N extends RouteName>(
    name: N,
    input: Parameters<Client['send']>[1] = {},
  ): Promise<Answer<N>> {
    const reply = await this.send(name, input)
    if (reply.status !== 200) throw new Error(`${name}: ${reply.status} ${reply.text}`)
    return reply.body as Answer<N>
  }
}
export async function signedIn(role: keyof typeof LOGINS | { email: string }): Promise<Client> {
  const client = new Client()
  await client.ok('signIn', {
    body: { email: typeof role === 'string' ? LOGINS[role] : role.email, password: 'open-ledger' },
  })
  return client
}
export const database = () =>
  mysql.createConnection({ uri: process.env.DATABASE_URL!, dateStrings: true })
export { setClock } from '../clock'
/** Tests go back and forth in time: whoever was clocked after that moment is free again, and what was clocked then is not to be charged. */
export async function forgetClocksAfter(instant: string): Promise<void> {
  const after = 'COALESCE(c.ended_at, c.started_at) > ?'
  const at = instant.replace('T', ' ').replace('Z', '')
  const db = await database()
  const [rows] = await db.query(
    `SELECT DISTINCT v.work_order_id AS id FROM clock_intervals c JOIN visits v ON v.id = c.visit_id WHERE ${after}`,
    [at],
  )
  await db.query(`DELETE c FROM clock_intervals c WHERE ${after}`, [at])
  await db.end()
  await inContext({ actor: null, ip: '' }, async (ctx) => {
    for (const work of rows as { id: string }[]) await refreshWorkOrder(ctx, work.id)
  })
}

/** What to know of the customer that these words mean. */
export const callerNamed = async (office: Client, words: string): Promise<Answer<'caller'>> =>
  office.ok('caller', {
    params: { id: (await office.ok('matches', { query: { q: words } })).items[0]!.customerId },
  })
/** A work order with something done and nothing billed. */
export async function somethingToBill(
  office: Client,
  price = '100.00',
): Promise<{ workOrderId: string; visitId: string; customerId: string }> {
  const match = await callerNamed(office, 'lowfold')
  const ids = { workOrderId: id(), visitId: id(), customerId: match.customerId }
  await office.ok('bookCall', {
    params: { id: id() },
    body: {
      workOrderId: ids.workOrderId,
      visitId: ids.visitId,
      customerId: match.customerId,
      siteId: match.sites[0]!.id,
      problem: 'Test work',
    },
  })
  await office.ok('addLines', {
    params: { id: ids.workOrderId },
    body: { lines: [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: price }] },
  })
  return ids
}
/** What a PDF says, read by an independent program as it is laid out. */
export const textOfPdf = (pdf: Buffer): string =>
  execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf, encoding: 'utf8' })
/** Waits for something to become true; the bound is generous, because only an answer ends it early. */
export async function until<T>(ask: () => Promise<T | null | undefined | false>): Promise<T> {
  for (let i = 0; i < 150; i++) {
    const got = await ask()
    if (got) return got
    await new Promise((done) => setTimeout(done, 100))
  }
  throw new Error('it did not happen within 15 s')
}
