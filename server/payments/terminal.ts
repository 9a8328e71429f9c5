// The card terminal over HTTP: asked within seconds, never within a transaction.
import { LedgerError } from '../../core/errors/LedgerError'
import { config } from '../config'

const WITHIN_MS = 5_000
/** What is asked of the terminal: to make a page on which this can be paid. */
export interface Asked {
  id: string
  amount: string
  currency: string
  what: string
  back: string
  tell: string
}

const away = () =>
  new LedgerError(
    'terminal_away',
    'The card terminal does not answer. Nothing was charged; try again in a moment or pay another way.',
  )
/** An answer of the terminal, or null where it knows nothing of it. @throws LedgerError where it does not answer */
export async function ask<T>(
  method: 'GET' | 'POST',
  path: string,
  body?: object,
): Promise<T | null> {
  const { address, secret } = config.connectionTo('card')
  const response = await fetch(`${address}${path}`, {
    method,
    signal: AbortSignal.timeout(WITHIN_MS),
    headers: {
      'Content-Type': 'application/json',
      Authorization: `Bearer ${secret}`,
    },
    ...(body && { body: JSON.stringify(body) }),
  }).catch(() => {
    throw away()
  })
  if (response.status === 404) return null
  if (!response.ok) throw away()
  return (await response.json().catch(() => {
    throw away()
  })) as T
}
