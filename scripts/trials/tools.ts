// What the trials share: requests that are repeated until they are answered, chance from a seed, one JSON line each.
import { randomUUID } from 'node:crypto'
import { seeded } from '../../core/random/seeded'
import { quantile } from '../../core/collections/paymentHabit'

export interface Trial {
  name: string
  acts: number
  faults: string[]
  lost: number
  doubled: number
  [extra: string]: unknown
}
export const report = (trial: Trial): boolean => {
  process.stdout.write(
    `${JSON.stringify({ ...trial, faults: trial.faults.length, first: trial.faults.slice(0, 5) })}\n`,
  )
  return trial.faults.length === 0 && trial.lost === 0 && trial.doubled === 0
}
export const p95 = (values: number[]): number =>
  values.length
    ? Math.round(
        quantile(
          [...values].sort((a, b) => a - b),
          0.95,
        ),
      )
    : 0
export const pause = (ms: number) => new Promise((done) => setTimeout(done, ms))
export type Chance = ReturnType<typeof chanceOf>
export function chanceOf(seed: number) {
  const random = seeded(seed)
  return {
    random,
    maybe: (share: number) => random() < share,
    between: (a: number, b: number) => a + Math.floor(random() * (b - a + 1)),
    pick: <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!,
  }
}

export interface Reply {
  status: number
  body: Record<string, unknown>
}
const REQUEST_MS = 20_000
const BACK_OFF_MS = 150
const GIVE_UP_MS = 120_000
/** Somebody signed in, who repeats a request with its key until it is answered, as the app's own client does. */
export class Person {
  cookie = ''
  constructor(
    readonly base: string,
    readonly email: string,
    readonly address = '',
  ) {}

  async once(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Reply> {
    const response = await fetch(`${this.base}${path}`, {
      method,
      redirect: 'manual',
      signal: AbortSignal.timeout(REQUEST_MS),
      headers: {
        ...(this.cookie ? { cookie: this.cookie } : {}),
        ...(this.address ? { 'X-Forwarded-For': this.address } : {}),
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...headers,
      },
      body: typeof body === 'string' ? body : JSON.stringify(body),
    })
    const set = response.headers.get('set-cookie')
    if (set) this.cookie = set.split(';')[0]!
    const text = await response.text()
    try {
      return { status: response.status, body: JSON.parse(text) as Record<string, unknown> }
    } catch {
      return { status: response.status, body: {} }
    }
  }

  /** Until it is answered by the books: no answer, and "not available", mean that it is sent again with the same key. */
  async act(
    method: string,
    path: string,
    body: unknown,
    key: string = randomUUID(),
  ): Promise<Reply> {
    const from = performance.now()
    for (;;) {
      const reply = await this.once(method, `/api/v1${path}`, body, {
        'Idempotency-Key': key,
      }).catch(() => null)
      if (reply && reply.status !== 503 && reply.status < 500) return reply
      if (reply && reply.status >= 500 && reply.status !== 503) return reply
      if (performance.now() - from > GIVE_UP_MS)
        throw new Error(`${path} was not answered within two minutes`)
      await pause(BACK_OFF_MS)
    }
  }

  async signIn(): Promise<this> {
    const reply = await this.act('POST', '/session', { email: this.email, password: 'open-ledger' })
    if (reply.status !== 200) throw new Error(`${this.email} could not sign in: ${reply.status}`)
    return this
  }
}
