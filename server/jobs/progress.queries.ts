// SQL of how far long work is.
import type { Tx } from '../db/pool'

export const putProgress = (
  tx: Tx,
  id: string,
  p: { what: string; done: number; of: number },
  at: string,
) =>
  tx.run(
    `INSERT INTO progress (id, what, done, total, told_at)
    VALUES (?, ?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE what = VALUES(what), done = VALUES(done), total = VALUES(total),
      told_at = VALUES(told_at)`,
    [id, p.what, p.done, p.of, at],
  )
export const progressOf = (tx: Tx, id: string) =>
  tx.row<{ what: string; done: number; of: number }>(
    'SELECT what, done, total AS `of` FROM progress WHERE id = ?',
    [id],
  )
export const deleteProgress = (tx: Tx, id: string) =>
  tx.run('DELETE FROM progress WHERE id = ?', [id])
export const sweepProgress = (tx: Tx, before: string) =>
  tx.run('DELETE FROM progress WHERE told_at < ?', [before])
