// The one way to the server: typed by the catalogue, writes carry an idempotency key and are repeated when the line drops.
import { v7 } from 'uuid'
import type { AnySchema, ValidationError } from 'yup'
import { addresses } from '#build/addresses'
import type { Answer, Given, Params, Query, RouteName, routes } from '~~/shared/api'

export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly errors: { path: string; message: string }[] = [],
    readonly extra: Record<string, unknown> = {},
  ) {
    super(message)
  }

  /** The sentence for one field, or nothing. */
  at(path: string): string {
    return this.errors.find((e) => e.path === path)?.message ?? ''
  }
}
export const newId = (): string => v7()
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
    throw new Problem(422, 'invalid', errors[0]!.message, errors)
  }
}
export async function call<N extends RouteName>(name: N, ...[asked]: Asked<N>): Promise<Answer<N>> {
  const input: Loose = asked ?? {}
  const [method, address, takes] = addresses[name]!
  const path = address.replace(/\{(\w+)\}/g, (_, key: string) =>
    encodeURIComponent(input.params?.[key] ?? ''),
  )
  const query = new URLSearchParams(
    Object.entries(input.query ?? {})
      .filter(([, v]) => v !== undefined && v !== '' && v !== null)
      .map(([k, v]) => [k, String(v)]),
  )
  const write = method !== 'GET'
  if (write && takes) await check(name, input.body ?? {})
  const headers: Record<string, string> = write
    ? { 'Content-Type': 'application/json', 'Idempotency-Key': input.key ?? newId() }
    : {}
  for (let attempt = 0; ; attempt++) {
    let response: Response
    try {
      response = await fetch(`/api/v1${path}${query.size ? `?${query}` : ''}`, {
        method,
        headers,
        body: write ? JSON.stringify(input.body ?? {}) : undefined,
        signal: AbortSignal.timeout(30_000),
      })
    } catch {
      // The same key: a write that did arrive is not done twice.
      if (attempt < 2 && navigator.onLine) continue
      throw new Problem(
        0,
        'offline',
        'There is no connection. What you typed is still here; try again when it is back.',
      )
    }
    if (response.ok) return (await response.json()) as Answer<N>
    const problem = (await response.json().catch(() => ({}))) as {
      code?: string
      detail?: string
      errors?: { path: string; message: string }[]
    }
    if (response.status === 401 && name !== 'signIn' && name !== 'session')
      window.dispatchEvent(new Event('signed-out'))
    throw new Problem(
      response.status,
      problem.code ?? 'unexpected',
      problem.detail ?? 'Something went wrong. Nothing was saved.',
      problem.errors,
      problem,
    )
  }
}
