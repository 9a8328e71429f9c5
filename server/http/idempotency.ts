// A repeated request with the same key is done once and answered twice with the same answer. The key is taken in the
// same transaction as the write, so a second request waits for the first, and a killed server leaves neither.
import { LedgerError } from '../../core/errors/LedgerError'
import { sqlInstant } from '../db/pool'
import type { Ctx } from './context'
import { findKey, keepAnswer, takeKey } from './keys.queries'
import { Raw } from './route'

const KEY = /^[\x21-\x7e]{8,80}$/
interface Request {
  key: string | undefined
  hash: string
  /** the answer holds what nobody may read later: it is never kept */
  secret: boolean
}

export async function onceOnly<T>(ctx: Ctx, request: Request, work: () => Promise<T>): Promise<T> {
  const { key, hash } = request
  if (!key) return work()
  if (!KEY.test(key))
    throw new LedgerError('malformed', 'The Idempotency-Key is 8 to 80 plain signs.')
  const id = `${ctx.actor?.id ?? ctx.ip}:${key}`
  if (!(await takeKey(ctx.tx, id, hash, sqlInstant(Date.now())))) {
    const earlier = await findKey(ctx.tx, id)
    if (earlier?.requestHash !== hash)
      throw new LedgerError('key_reused', 'This Idempotency-Key was used for another request.')
    if (earlier.answer === null)
      throw new LedgerError(
        'shown_once',
        'This was done already, and what came of it is shown only once.',
      )
    return JSON.parse(earlier.answer) as T
  }
  const result = await work()
  if (!request.secret && !(result instanceof Raw))
    await keepAnswer(ctx.tx, id, JSON.stringify(result))
  return result
}
