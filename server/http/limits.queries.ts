// SQL of what was tried how often.
import { createHash } from 'node:crypto'
import { sqlInstant, type Tx } from '../db/pool'

/** Addresses and mail addresses are kept as hashes only. */
const hashed = (key: string) => createHash('sha256').update(key).digest('hex')

/** The row of a key, locked until the commit; made where there is none. */
export async function tryRow(
  tx: Tx,
  key: string,
  now: number,
): Promise<{ count: number; lastAt: number }> {
  await tx.run(
    'INSERT INTO tries (id, count, last_at) VALUES (?, 0, ?) ON DUPLICATE KEY UPDATE id = id',
    [hashed(key), sqlInstant(now)],
  )
  const row = (await tx.row<{ count: number; lastAt: string }>(
    'SELECT count, last_at FROM tries WHERE id = ? FOR UPDATE',
    [hashed(key)],
  ))!
  return { count: row.count, lastAt: Date.parse(row.lastAt) }
}
export const addTry = (tx: Tx, key: string, count: number, now: number) =>
  tx.run('UPDATE tries SET count = ?, last_at = ? WHERE id = ?', [
    count,
    sqlInstant(now),
    hashed(key),
  ])
export const forgetTries = (tx: Tx, key: string) =>
  tx.run('DELETE FROM tries WHERE id = ?', [hashed(key)])
export const sweepTries = (tx: Tx, before: string) =>
  tx.run('DELETE FROM tries WHERE last_at < ?', [before])
