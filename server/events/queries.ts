// SQL of the events: what changed, for every process to read.
import { sqlInstant, type Tx } from '../db/pool'

export const TOPICS = ['change', 'moved', 'customer', 'session', 'touch'] as const
/**
 * change: something that people see changed · moved: vans moved · customer: words by which a
 * customer is found changed · session: a session ended · touch: a write that nobody has to see,
 * which still makes earlier answers old.
 */
export type Topic = (typeof TOPICS)[number]
export interface NewEvent {
  topic: Topic
  subject: string
  subjectId: string
  workOrderId: string | null
}
export interface AppEvent extends NewEvent {
  id: number
}

const AT_ONCE = 200
const ROW = '(?, ?, ?, ?, ?)'
/** Writes them in order; the identifiers of one statement follow each other. */
export async function insertEvents(
  tx: Tx,
  events: readonly NewEvent[],
  at: number,
): Promise<AppEvent[]> {
  const written: AppEvent[] = []
  for (let i = 0; i < events.length; i += AT_ONCE) {
    const some = events.slice(i, i + AT_ONCE)
    const { insertId } = await tx.run(
      `INSERT INTO events (at, topic, subject, subject_id, work_order_id)
      VALUES ${some.map(() => ROW).join(', ')}`,
      some.flatMap((e) => [sqlInstant(at), e.topic, e.subject, e.subjectId, e.workOrderId]),
    )
    written.push(...some.map((e, n) => ({ ...e, id: insertId + n })))
  }
  return written
}
export const eventsFrom = (tx: Tx, after: number, limit: number): Promise<AppEvent[]> =>
  tx.rows<AppEvent>(
    'SELECT id, topic, subject, subject_id, work_order_id FROM events WHERE id > ? ORDER BY id LIMIT ?',
    [after, String(limit)],
  )
export const edges = async (tx: Tx): Promise<{ first: number; last: number }> =>
  (await tx.row<{ first: number; last: number }>(
    'SELECT COALESCE(MIN(id), 0) AS first, COALESCE(MAX(id), 0) AS last FROM events',
  ))!
export const lastEvent = async (tx: Tx): Promise<number> =>
  (await tx.row<{ last: number }>('SELECT COALESCE(MAX(id), 0) AS last FROM events'))!.last
export const sweepEvents = (tx: Tx, before: string) =>
  tx.run('DELETE FROM events WHERE at < ? LIMIT 50000', [before])
