// One way through for every request: find the route, who may, bounded body, validate, once only, one transaction, answer.
import { createHash, randomUUID } from 'node:crypto'
import { getHeader, getHeaders, getQuery, getRequestURL, setHeader, setResponseStatus, type H3Event } from 'h3'
import { LedgerError } from '../../core/errors/LedgerError'
import type { RouteName } from '../../shared/api'
import type { Route } from '../../shared/schema'
import { actorOf, checkSignature, keepSession } from '../access/session'
import { health } from '../figures/health'
import { handlers, Raw, type Input } from './handlers'
import { inContext, type Actor } from './context'
import { live } from './live'
import { matchRoute } from './match'
import { onceOnly } from './idempotency'
import { openapi } from './openapi'
import { problemOf } from './problem'
import { forgetShared, sendable, sharedAnswer, type Sendable } from './shared'
import { readBounded } from './body'

const ID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/

export async function handle(event: H3Event, path: string): Promise<unknown> {
  const requestId = randomUUID().slice(0, 8)
  setHeader(event, 'X-Request-Id', requestId)
  setHeader(event, 'Cache-Control', 'no-store')
  try {
    return await answer(event, path)
  }
  catch (error) {
    const problem = problemOf(error, requestId)
    setResponseStatus(event, problem.status)
    setHeader(event, 'Content-Type', 'application/problem+json')
    if (problem.status === 429) setHeader(event, 'Retry-After', 60)
    return JSON.stringify(problem)
  }
}

async function answer(event: H3Event, path: string): Promise<unknown> {
  const found = matchRoute(event.method === 'HEAD' ? 'GET' : event.method, path)
  if (!found) throw new LedgerError('no_such_route', 404, 'There is nothing at this address.')
  if ('allowed' in found) {
    setHeader(event, 'Allow', found.allowed.join(', '))
    throw new LedgerError('method_not_allowed', 405, `This address takes ${found.allowed.join(', ')}.`)
  }
  const { name, route, params } = found
  if (name === 'health') return health(event)
  if (name === 'openapi') return openapi()
  const actor = await allow(event, route)
  if (name === 'live') return live(event, actor!)
  for (const [key, value] of Object.entries(params)) {
    if (key === 'id' && !ID.test(value)) throw new LedgerError('not_found', 404, 'There is no such thing, or it is not yours to see.')
  }
  const bytes = route.method === 'GET' ? Buffer.alloc(0) : await readBounded(event, route.maxBytes ?? 100_000)
  if (route.who === 'signature') checkSignature(route.signedBy ?? 'CARD', getHeader(event, 'X-Signature') ?? '', bytes)
  const query = route.query ? await route.query.validate(getQuery(event), { abortEarly: false }) : {}
  const body = route.body ? await route.body.validate(parse(bytes), { abortEarly: false }) : {}
  const input = { params, query, body, raw: { headers: getHeaders(event), bytes } }
  const ip = event.node.req.socket.remoteAddress ?? ''
  const key = route.method === 'GET' ? undefined : getHeader(event, 'Idempotency-Key')
  const work = () => inContext({ actor, ip }, ctx => onceOnly(ctx, key, hashOf(name, params, bytes), () => (handlers[name as keyof typeof handlers] as (c: typeof ctx, i: unknown) => Promise<unknown>)(ctx, input as Input<never>)))
  if (route.shared) {
    return sent(event, await sharedAnswer(`${name} ${JSON.stringify(params)} ${JSON.stringify(query)}`, work))
  }
  const result = await work()
  if (route.method !== 'GET') forgetShared()
  if (name === 'signIn' || name === 'signOut') return keepSession(event, name, result)
  if (result instanceof Raw) {
    setHeader(event, 'Content-Type', result.mime)
    if (result.filename) setHeader(event, 'Content-Disposition', `inline; filename="${result.filename.replace(/[^\w.-]/g, '_')}"`)
    return result.data
  }
  return sent(event, sendable(result))
}
const LARGE = 20_000
/** Answers that are large go compressed where the browser takes it: a price book over a phone's signal. */
async function sent(event: H3Event, { text, gzip }: Sendable): Promise<string | Buffer> {
  setHeader(event, 'Content-Type', 'application/json')
  if (text.length < LARGE || !/\bgzip\b/.test(getHeader(event, 'Accept-Encoding') ?? '')) return text
  setHeader(event, 'Content-Encoding', 'gzip')
  setHeader(event, 'Vary', 'Accept-Encoding')
  return gzip()
}

async function allow(event: H3Event, route: Route): Promise<Actor | null> {
  if (route.who === 'public' || route.who === 'signature') return null
  const { actor, byCookie } = await actorOf(event)
  if (!actor) throw new LedgerError('not_signed_in', 401, 'Sign in first.')
  // A cookie is sent by any page that the browser shows: a write must come from our own.
  const origin = getHeader(event, 'Origin')
  if (byCookie && route.method !== 'GET' && origin && new URL(origin).host !== getRequestURL(event).host) throw new LedgerError('foreign_origin', 403, 'This was sent from another site.')
  if (!route.who.includes(actor.role)) throw new LedgerError('forbidden', 403, 'Your role may not do this.')
  return actor
}

function parse(bytes: Buffer): unknown {
  try {
    const value: unknown = bytes.length ? JSON.parse(bytes.toString('utf8')) : {}
    if (value === null || typeof value !== 'object' || Array.isArray(value)) throw new Error('not an object')
    return value
  }
  catch {
    throw new LedgerError('malformed', 400, 'The body is not a JSON object.')
  }
}
const hashOf = (name: RouteName, params: Record<string, string>, bytes: Buffer) => createHash('sha256').update(name).update(JSON.stringify(params)).update(bytes).digest('hex')
