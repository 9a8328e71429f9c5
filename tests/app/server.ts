// A server that answers what a test says, and notes what it was asked.
import { vi } from 'vitest'

export interface Asked {
  method: string
  path: string
  body: unknown
  key: string | null
}
type Reply = { status?: number; body?: unknown } | Error
/** Answers one after the other; the last one again and again. */
export function answers(...replies: Reply[]) {
  const asked: Asked[] = []
  vi.stubGlobal('fetch', (url: string, init: RequestInit = {}) => {
    const reply = replies[Math.min(asked.length, replies.length - 1)]!
    asked.push({
      method: init.method ?? 'GET',
      path: url.replace('/api/v1', ''),
      body: init.body ? (JSON.parse(String(init.body)) as unknown) : undefined,
      key: new Headers(init.headers).get('Idempotency-Key'),
    })
    if (reply instanceof Error) return Promise.reject(reply)
    const { status = 200, body = {} } = reply
    return Promise.resolve(
      new Response(JSON.stringify(body), {
        status,
        headers: { 'Content-Type': 'application/json' },
      }),
    )
  })
  return asked
}
/** A promise that is settled by hand: an answer that is late. */
export function later<T>() {
  let settle = (_: T) => {}
  const promise = new Promise<T>((resolve) => (settle = resolve))
  return { promise, settle }
}
