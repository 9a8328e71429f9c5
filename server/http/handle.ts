// One way through for every request: find the route, who may, bounded body, kinds, validate, once only, answer.
import { createHash, randomUUID } from 'node:crypto'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { getHeader, getHeaders, getQuery, setHeader, setResponseStatus, type H3Event } from 'h3'
import { LedgerError, notFound } from '../../core/errors/LedgerError'
import { isDay } from '../../core/time/zone'
import { MINUTE } from '../../core/time/units'
import type { RouteName } from '../../shared/api'
import type { Route } from '../../shared/schema'
import { actorOf, checkSignature, keepSession, type Asker } from '../access/session'
import { emit, hasEvents } from '../events/events'
import { health } from '../figures/health'
import { countRequest } from '../figures/metrics'
import { addressOf } from './address'
import { readBounded, readToFile } from './body'
import { inContext, may, type Ctx } from './context'
import { handlers } from './handlers'
import { onceOnly } from './idempotency'
import { checkBody, checkQuery } from './kinds'
import { live } from './live'
import { log } from './log'
import { matchRoute } from './match'
import { openapi } from './openapi'
import { refuseForeign, refuseForms } from './origin'
import { problemOf } from './problem'
import { Raw, type Call, type Input, type Inside, type Outside } from './route'
import { sendable, sharedAnswer, type Sendable } from './shared'
import { turn } from './turns'

const ID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/
const USUAL_BYTES = 100_000

export async function handle(event: H3Event, path: string): Promise<unknown> {
  const requestId = randomUUID().slice(0, 8)
  setHeader(event, 'X-Request-Id', requestId)
  setHeader(event, 'Cache-Control', 'no-store')
  const started = performance.now()
  const { res } = event.node
  res.once('close', () => countRequest(routeName(event), res.statusCode, started))
  try {
    return await answer(event, path)
  } catch (error) {
    const problem = problemOf(error, requestId)
    setResponseStatus(event, problem.status)
    setHeader(event, 'Content-Type', 'application/problem+json')
    if (typeof problem.retryAfter === 'number') setHeader(event, 'Retry-After', problem.retryAfter)
    return JSON.stringify(problem)
  }
}

/** The route that a request was found to ask for. */
const routeName = (event: H3Event): string =>
  (event.context as { routeName?: string }).routeName ?? 'none'
type Found = Exclude<ReturnType<typeof matchRoute>, null | { allowed: string[] }>
function routeFor(event: H3Event, path: string): Found {
  const found = matchRoute(event.method === 'HEAD' ? 'GET' : event.method, path)
  if (!found) throw new LedgerError('no_such_route', 'There is nothing at this address.')
  if ('allowed' in found) {
    setHeader(event, 'Allow', found.allowed.join(', '))
    throw new LedgerError('method_not_allowed', `This address takes ${found.allowed.join(', ')}.`)
  }
  return found
}

async function answer(event: H3Event, path: string): Promise<unknown> {
  const { name, route, params } = routeFor(event, path)
  event.context.routeName = name
  if (name === 'health') return health(event)
  if (name === 'openapi') return openapi()
  await turn()
  const asker = await allow(event, route)
  if (asker.actor) setHeader(event, 'Last-Event-ID', String(asker.lastEvent))
  if (name === 'live') return live(event, asker)
  const input = await inputOf(event, route, params)
  const call = callOf(event, { name, route, input, asker })
  const work = handlers[name as keyof typeof handlers] as Inside<never> | Outside<never>
  if (route.shared) {
    const question = `${asker.lastEvent} ${name} ${JSON.stringify(params)} ${JSON.stringify(input.query)}`
    return sent(
      event,
      await sharedAnswer(question, () =>
        call.inContext((ctx) => (work as Inside<never>)(ctx, input as never)),
      ),
    )
  }
  const result =
    'outside' in work
      ? await work.outside(call, input as never)
      : await call.once((ctx) => work(ctx, input as never))
  if (route.session) return keepSession(event, route.session, result)
  return result instanceof Raw ? sentRaw(event, result) : sent(event, sendable(result))
}

interface Read {
  params: Record<string, string>
  query: unknown
  body: unknown
  raw: Input<never>['raw']
}
/** What cannot be an address of ours leads nowhere, whatever the database would make of it. */
function checkParams(params: Record<string, string>): void {
  for (const [key, value] of Object.entries(params)) {
    if (key === 'date' && !isDay(value)) throw new LedgerError('not_found', 'There is no such day.')
    if (key === 'id' && !ID.test(value)) throw notFound('thing')
    if (!value.isWellFormed())
      throw new LedgerError('not_found', 'There is nothing at this address.')
  }
}
async function inputOf(
  event: H3Event,
  route: Route,
  params: Record<string, string>,
): Promise<Read> {
  checkParams(params)
  const most = route.maxBytes ?? USUAL_BYTES
  const isHeld = route.method !== 'GET' && !route.takesFile
  const bytes = isHeld ? await readBounded(event, most) : Buffer.alloc(0)
  if (route.who === 'signature')
    checkSignature(route.signedBy ?? 'card', getHeader(event, 'X-Signature') ?? '', bytes)
  return {
    params,
    query: route.query ? await asked(event, route.query) : {},
    body: route.body ? await told(route.body, bytes) : {},
    raw: { headers: getHeaders(event), bytes, toFile: () => readToFile(event, most) },
  }
}
async function asked(event: H3Event, schema: NonNullable<Route['query']>): Promise<unknown> {
  const query = getQuery(event)
  checkQuery(query)
  return schema.validate(query, { abortEarly: false })
}
async function told(schema: NonNullable<Route['body']>, bytes: Buffer): Promise<unknown> {
  const body = parse(bytes)
  checkBody(schema, body)
  return schema.validate(body, { abortEarly: false })
}
function parse(bytes: Buffer): unknown {
  try {
    const value: unknown = bytes.length ? JSON.parse(bytes.toString('utf8')) : {}
    if (value === null || typeof value !== 'object' || Array.isArray(value))
      throw new Error('not an object')
    return value
  } catch {
    throw new LedgerError('malformed', 'The body is not a JSON object.')
  }
}

/** A request whose route is found and whose asker may. */
interface Asked {
  name: RouteName
  route: Route
  input: Read
  asker: Asker
}
function callOf(event: H3Event, { name, route, input, asker }: Asked): Call {
  const who = { actor: asker.actor, ip: addressOf(event) }
  const writes = route.method !== 'GET'
  const key = writes ? getHeader(event, 'Idempotency-Key') : undefined
  const hash = createHash('sha256')
    .update(name)
    .update(JSON.stringify(input.params))
    .update(input.raw.bytes)
    .digest('hex')
  const marked = async <T>(ctx: Ctx, work: (ctx: Ctx) => Promise<T>): Promise<T> => {
    const result = await work(ctx)
    // What nobody has to see still makes earlier answers old.
    if (writes && !hasEvents(ctx.tx))
      emit(ctx.tx, { topic: 'touch', subject: '', subjectId: '', workOrderId: null })
    return result
  }
  return {
    ...who,
    session: asker.session,
    inContext: (work) => inContext(who, (ctx) => marked(ctx, work)),
    once: (work) =>
      inContext(who, (ctx) =>
        onceOnly(ctx, { key, hash, secret: route.secret ?? false }, () => marked(ctx, work)),
      ),
  }
}

const LARGE = 20_000
/** Answers that are large go compressed where the browser takes it: a price book over a phone's signal. */
async function sent(event: H3Event, { text, gzip }: Sendable): Promise<string | Buffer> {
  setHeader(event, 'Content-Type', 'application/json')
  if (text.length < LARGE || !/\bgzip\b/.test(getHeader(event, 'Accept-Encoding') ?? ''))
    return text
  setHeader(event, 'Content-Encoding', 'gzip')
  setHeader(event, 'Vary', 'Accept-Encoding')
  return gzip()
}
async function sentRaw(event: H3Event, raw: Raw): Promise<Buffer | string | undefined> {
  const head = () => {
    setHeader(event, 'Content-Type', raw.mime)
    // For a day of work: what is erased here is not in sight elsewhere for longer.
    if (raw.stays) setHeader(event, 'Cache-Control', 'private, max-age=86400, immutable')
    if (raw.filename)
      setHeader(
        event,
        'Content-Disposition',
        `inline; filename="${raw.filename.replace(/[^\w.-]/g, '_')}"`,
      )
  }
  if (typeof raw.data === 'object' && Symbol.asyncIterator in raw.data)
    return sentInPieces(event, raw.data, head)
  const data = typeof raw.data === 'function' ? await raw.data() : raw.data
  head()
  return data
}
/** Whoever takes nothing for so long has gone. */
const STALLED_MS = MINUTE
/** Until the first piece is there, what goes wrong is answered like anything else; after it, the answer breaks off. */
async function sentInPieces(
  event: H3Event,
  pieces: AsyncGenerator<string | Buffer>,
  head: () => void,
): Promise<undefined> {
  const first = await pieces.next()
  head()
  const { res } = event.node
  const stalled = setTimeout(() => res.destroy(), STALLED_MS)
  async function* all() {
    if (!first.done) yield first.value
    for await (const piece of pieces) {
      stalled.refresh()
      yield piece
    }
  }
  await pipeline(Readable.from(all(), { objectMode: false }), res)
    .catch((error: Error) => log.warn({ err: error.message }, 'an export broke off'))
    .finally(() => clearTimeout(stalled))
}

const NOBODY: Asker = {
  ...{ actor: null, session: '', byCookie: false, readsOnly: false, lastEvent: 0 },
}
async function allow(event: H3Event, route: Route): Promise<Asker> {
  const writes = route.method !== 'GET'
  if (route.who === 'signature') return NOBODY
  if (route.who === 'public') {
    if (writes) guard(event, route)
    return NOBODY
  }
  const asker = await actorOf(event)
  if (!asker.actor) throw new LedgerError('not_signed_in', 'Sign in first.')
  if (writes && asker.byCookie) guard(event, route)
  refuseUnready(asker, route, writes)
  if (!may(asker, route.may!)) throw new LedgerError('forbidden', 'Your role may not do this.')
  return asker
}
/** What a token was not made for; and anything but one's own sign-in, while the second step is missing. */
function refuseUnready(asker: Asker, route: Route, writes: boolean): void {
  if (writes && asker.readsOnly) throw new LedgerError('forbidden', 'This token may only read.')
  if (asker.actor!.lacksSecondStep && route.may !== 'access.own')
    throw new LedgerError(
      'second_step_first',
      'A second step is asked of your role. Set it up under “My sign-in” first.',
    )
}
function guard(event: H3Event, route: Route): void {
  refuseForeign(event)
  if (route.body) refuseForms(event)
}
