// A repeated request with the same key is done once and answered twice with the same answer. The key is taken in the
// same transaction as the write, so a second request waits for the first, and a killed server leaves neither.
import { LedgerError } from '../../core/errors/LedgerError'
import { sqlInstant } from '../db/pool'
import type { Ctx } from './context'
import { Raw } from './handlers'
import { findKey, keepAnswer, takeKey } from './keys.queries'

export async function onceOnly(ctx: Ctx, key: string | undefined, hash: string, work: () => Promise<unknown>): Promise<unknown> {
  if (!key) return work()
  if (!/^[\x21-\x7e]{8,80}$/.test(key)) throw new LedgerError('malformed', 400, 'The Idempotency-Key is 8 to 80 plain signs.')
  const id = `${ctx.actor?.id ?? ctx.ip}:${key}`
  if (!(await takeKey(ctx.tx, id, hash, sqlInstant(Date.now())))) {
    const earlier = await findKey(ctx.tx, id)
    if (earlier?.requestHash !== hash) throw new LedgerError('key_reused', 409, 'This Idempotency-Key was used for another request.')
    return JSON.parse(earlier.answer ?? '{}')
  }
  const result = await work()
  if (!(result instanceof Raw)) await keepAnswer(ctx.tx, id, JSON.stringify(result))
  return result
}
