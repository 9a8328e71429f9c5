// SQL of tasks.
import type { TaskSubject } from '../../core/waiting/taskSubjects'
import { sqlInstant, type Tx } from '../db/pool'

export interface TaskRow {
  id: string
  version: number
  what: string
  on: string | null
  ownerId: string
  owner: string
  doneAt: string | null
  doneBy: string
  about: TaskSubject
  subjectId: string
  customerId: string
  label: string
}
/** What a task t is about: of a customer who was merged, whoever stays. */
export const SUBJECT = `IF(t.about = 'customer', t.customer_id, t.subject_id)`
/** What a task is about, as its page is called: of a task t with its customer c. */
export const LABEL = `CASE t.about
      WHEN 'work' THEN (SELECT CONCAT(w.number, ' ', w.title) FROM work_orders w WHERE w.id = t.subject_id)
      WHEN 'quote' THEN (SELECT CONCAT(q.number, ' ', q.title) FROM quotes q WHERE q.id = t.subject_id)
      ELSE c.name END`
const TASK = `SELECT t.id, t.version, t.what, t.due_on AS \`on\`, t.owner_id, o.name AS owner,
    t.done_at, COALESCE(d.name, '') AS doneBy, t.about, ${SUBJECT} AS subjectId, t.customer_id, ${LABEL} AS label
  FROM tasks t
  JOIN people o ON o.id = t.owner_id
  JOIN customers c ON c.id = t.customer_id
  LEFT JOIN people d ON d.id = t.done_by`
const FIRST_DUE = 't.due_on IS NULL, t.due_on, t.made_at, t.id'
/** Open ones, the first due first, and then the last that were done. */
export const tasksAbout = (tx: Tx, about: TaskSubject, subjectId: string) =>
  tx.rows<TaskRow>(
    `${TASK} WHERE t.about = ? AND ${about === 'customer' ? 't.customer_id' : 't.subject_id'} = ?
    ORDER BY t.done_at IS NOT NULL, t.done_at DESC, ${FIRST_DUE} LIMIT 60`,
    [about, subjectId],
  )
export const tasksOf = (tx: Tx, ownerId: string) =>
  tx.rows<TaskRow>(
    `${TASK} WHERE t.done_at IS NULL AND t.owner_id = ? ORDER BY ${FIRST_DUE} LIMIT 200`,
    [ownerId],
  )
export const taskById = (tx: Tx, id: string) => tx.row<TaskRow>(`${TASK} WHERE t.id = ?`, [id])
/** Whoever changes a task waits for whoever does so now. */
export const lockTask = (tx: Tx, id: string) =>
  tx.row('SELECT id FROM tasks WHERE id = ? FOR UPDATE', [id])
/** Whose that is; null where there is no such thing. */
export const customerOf = async (
  tx: Tx,
  about: TaskSubject,
  id: string,
): Promise<string | null> => {
  const table = { work: 'work_orders', quote: 'quotes', customer: 'customers' }[about]
  const column = about === 'customer' ? 'id' : 'customer_id'
  const row = await tx.row<{ customerId: string }>(
    `SELECT ${column} AS customerId FROM ${table} WHERE id = ?`,
    [id],
  )
  return row?.customerId ?? null
}
export const insertTask = (
  tx: Tx,
  t: Pick<TaskRow, 'id' | 'what' | 'on' | 'ownerId' | 'about' | 'subjectId' | 'customerId'> & {
    by: string
    at: number
  },
) =>
  tx.run(
    `INSERT INTO tasks (id, what, due_on, owner_id, about, subject_id, customer_id, made_by, made_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [t.id, t.what, t.on, t.ownerId, t.about, t.subjectId, t.customerId, t.by, sqlInstant(t.at)],
  )
export const setTask = (
  tx: Tx,
  t: Pick<TaskRow, 'id' | 'what' | 'on' | 'ownerId'> & { doneAt: number | null; by: string | null },
) =>
  tx.run(
    `UPDATE tasks SET what = ?, due_on = ?, owner_id = ?, done_at = ?, done_by = ?,
      version = version + 1
    WHERE id = ?`,
    [t.what, t.on, t.ownerId, t.doneAt === null ? null : sqlInstant(t.doneAt), t.by, t.id],
  )
