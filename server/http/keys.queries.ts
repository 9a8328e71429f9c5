// SQL of the idempotency keys.
import type { Tx } from '../db/pool'

export const takeKey = async (tx: Tx, id: string, hash: string, at: string): Promise<boolean> =>
  (
    await tx.run(
      'INSERT IGNORE INTO idempotency_keys (id, request_hash, created_at) VALUES (?, ?, ?)',
      [id, hash, at],
    )
  ).affected === 1
export const findKey = (tx: Tx, id: string) =>
  tx.row<{ requestHash: string; answer: string | null }>(
    'SELECT request_hash, answer FROM idempotency_keys WHERE id = ?',
    [id],
  )
export const keepAnswer = (tx: Tx, id: string, answer: string) =>
  tx.run('UPDATE idempotency_keys SET answer = ? WHERE id = ?', [answer, id])
export const sweepKeys = (tx: Tx, before: string) =>
  tx.run('DELETE FROM idempotency_keys WHERE created_at < ?', [before])
