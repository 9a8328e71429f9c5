// The one way to the server: typed by the catalogue, writes carry an idempotency key and are repeated when the line drops.
import { ASKABLE, type Askable } from '~~/core/access/limits'
import type { AnySchema, ValidationError } from 'yup'
import { addresses } from '#build/addresses'
import { readAsOf } from './live'
import { asBefore, forgetLost, forgetLostAt, newId, rememberLost } from './lostWrites'
import type { ErrorCode } from '~~/core/errors/errors'
import type { Answer, Given, Params, Query, RouteName, routes } from '~~/shared/api'

/** Codes of answers, and the one that there is without an answer. */
type Code = ErrorCode | 'offline'
type Fault = { path: string; message: string }
interface Refusal {
  status: number
  code: Code
  errors?: Fault[]
  extra?: Record<string, unknown>
}
export { newId }
export class Problem extends Error {
  readonly status: number
  readonly code: Code
  readonly errors: Fault[]
  readonly extra: Record<string, unknown>
  constructor(message: string, { status, code, errors = [], extra = {} }: Refusal) {
    super(message)
    this.status = status
    this.code = code
    this.errors = errors
    this.extra = extra
  }

  /** The sentence for one field, or nothing. */
  at(path: string): string {
    return this.errors.find((e) => e.path === path)?.message ?? ''
  }
}
/** What a route is asked with: the names of its path, its query, each required field of its body. */
type Input<N extends RouteName> = { query?: Partial<Query<N>>; key?: string } & ([
  Params<N>,
] extends [never]
  ? { params?: undefined }
  : { params: Record<Params<N>, string> }) &
  (HasBody<N> extends true ? { body: Given<N> } : { body?: undefined })
type HasBody<N extends RouteName> = (typeof routes)[N] extends { body: AnySchema } ? true : false
/** Routes that are asked with nothing need no second argument. */
export type Asked<N extends RouteName> = [Params<N>] extends [never]
  ? HasBody<N> extends true
    ? [input: Input<N>]
    : [input?: Input<N>]
  : [input: Input<N>]
type Loose = {
  params?: Record<string, string>
  query?: Record<string, unknown>
  body?: unknown
  key?: string
}

/**
 * The schemas that forms are checked by: fetched beside the first screen of whoever signed in, so that a
 * form is sent the moment it is kept. Where they cannot be had, the server checks alone.
 */
export const catalogueOfRoutes = () => import('~~/shared/api').catch(() => null)
/** The same schema as the server's: what is plainly wrong is said without asking it. */
async function check(name: RouteName, body: unknown): Promise<void> {
  const catalogue = await catalogueOfRoutes()
  try {
    await catalogue?.routeOf(name).body?.validate(body, { abortEarly: false })
  } catch (error) {
    if ((error as Error).name !== 'ValidationError') throw error
    const { inner } = error as ValidationError
    const errors = (inner.length ? inner : [error as ValidationError]).map((e) => ({
      path: e.path ?? '',
      message: e.message,
    }))
    throw new Problem(errors[0]!.message, { status: 422, code: 'invalid', errors })
  }
}
/** An address with the names of its path and its query in it. */
function urlOf(address: string, { params, query = {} }: Loose): string {
  const path = address.replace(/\{(\w+)\}/g, (_, key: string) =>
    encodeURIComponent(params?.[key] ?? ''),
  )
  const given = Object.entries(query).filter(([, v]) => v !== undefined && v !== '' && v !== null)
  const asked = new URLSearchParams(given.map(([k, v]) => [k, String(v)]))
  return `/api/v1${path}${asked.size ? `?${asked}` : ''}`
}
const PATIENCE_MS = 20_000
/** Pictures and files over a weak signal. */
const LARGE_SIGNS = 100_000
const LARGE_PATIENCE_MS = 120_000
const TIMED_OUT =
  'There is no answer yet. What you typed is still here; try again: what arrived is not done twice.'
export const NO_LINE =
  'There is no connection. What you typed is still here; try again when it is back.'
/** Asks, again where the line drops: with the same key, so that a write that did arrive is not done twice. */
async function ask(url: string, request: RequestInit, again = 2): Promise<Response> {
  const isLarge = String(request.body ?? '').length > LARGE_SIGNS
  const signal = AbortSignal.timeout(isLarge ? LARGE_PATIENCE_MS : PATIENCE_MS)
  try {
    return await fetch(url, { ...request, signal })
  } catch {
    // Whoever waited so long is told, and says whether it is tried once more.
    if (signal.aborted) throw new Problem(TIMED_OUT, { status: 0, code: 'offline' })
    if (again > 0 && navigator.onLine) return ask(url, request, again - 1)
    throw new Problem(NO_LINE, { status: 0, code: 'offline' })
  }
}
/** Where a server falls in the middle of it, nobody can say what became of it. */
const NOBODY_KNOWS =
  'The server did not answer as it should. Try again: what was saved already is not saved twice.'
const SESSION_ENDED = 'Your session had ended, and this was not done. Sign in again and repeat it.'
/** What an answer that refuses says; one that says nothing is our mistake. */
async function problemIn(response: Response): Promise<Problem> {
  const said = (await response.json().catch(() => ({}))) as Partial<Refusal> & { detail?: string }
  const { code = 'unexpected', detail = NOBODY_KNOWS, errors } = said
  return new Problem(detail, { status: response.status, code, errors, extra: said })
}
/** What a response answers; one that refuses is thrown. */
export async function answerOf<N extends RouteName>(
  name: N,
  response: Response,
): Promise<Answer<N>> {
  readAsOf(Number(response.headers.get('Last-Event-ID')))
  if (response.ok) return (await response.json()) as Answer<N>
  const problem = await problemIn(response)
  if (response.status !== 401 || name === 'signIn' || name === 'session') throw problem
  window.dispatchEvent(new Event('signed-out'))
  throw new Problem(SESSION_ENDED, problem)
}
/** What is over one's limit is kept with its refusal, so that another person's yes can be asked for it. */
function mayBeAsked(name: RouteName, { params, body }: Loose, { code, extra }: Problem): void {
  if (code === 'over_limit' && ASKABLE.includes(name as Askable))
    extra.request = { route: name, subjectId: params?.id, body }
}
export async function call<N extends RouteName>(name: N, ...[asked]: Asked<N>): Promise<Answer<N>> {
  const input: Loose = asked ?? {}
  const [method, address, takes] = addresses[name]!
  if (method === 'GET') return answerOf<N>(name, await ask(urlOf(address, input), { method }))
  if (takes) await check(name, input.body ?? {})
  const write = asBefore({
    url: urlOf(address, input),
    body: JSON.stringify(input.body ?? {}),
    key: input.key ?? newId(),
  })
  const headers = { 'Content-Type': 'application/json', 'Idempotency-Key': write.key }
  try {
    const answer = await answerOf<N>(
      name,
      await ask(write.url, { method, headers, body: write.body }),
    )
    forgetLostAt(write)
    return answer
  } catch (error) {
    // Only a refusal says that nothing was done.
    const { status } = error as Problem
    mayBeAsked(name, input, error as Problem)
    if (status >= 400 && status < 500) forgetLost(write)
    else rememberLost(write)
    throw error
  }
}
