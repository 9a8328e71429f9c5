// SQL of calls and of requests from the public form.
import type { AlikeCalls } from '../../core/calls/callCounts'
import { sqlInstant, type Tx } from '../db/pool'
import type { Problem } from '../http/problem'

export interface CallRow {
  id: string
  state: string
  origin: 'telephone' | 'form' | 'hand'
  draft: unknown
  summary: string
  workOrderId: string | null
  callBackOn: string | null
  reason: string
  assignedTo: string | null
  takenBy: string | null
  createdAt: string
  version: number
}
const CALL = `SELECT k.id, k.state, k.origin, k.draft, k.summary, k.work_order_id, k.call_back_on,
    k.reason, a.name AS assignedTo, p.name AS takenBy, k.created_at, k.version
  FROM calls k
  LEFT JOIN people p ON p.id = k.taken_by
  LEFT JOIN people a ON a.id = k.assigned_to`
export const waitingCalls = (tx: Tx) =>
  tx.rows<CallRow>(
    `${CALL}
    WHERE k.state IN ('open', 'put_off')
    ORDER BY COALESCE(k.call_back_on, '2000-01-01'), k.created_at LIMIT 200`,
  )
export const callById = (tx: Tx, id: string, lock = false) =>
  tx.row<CallRow>(`${CALL} WHERE k.id = ?${lock ? ' FOR UPDATE' : ''}`, [id])
/** What of a call is typed, held until it is kept. */
export const draftOfCall = (tx: Tx, id: string) =>
  tx.row<Pick<CallRow, 'draft' | 'version' | 'state'>>(
    'SELECT draft, version, state FROM calls WHERE id = ? FOR UPDATE',
    [id],
  )
export const versionOfCall = async (tx: Tx, id: string): Promise<number> =>
  (await tx.row<{ version: number }>('SELECT version FROM calls WHERE id = ?', [id]))!.version
export const keepCall = (
  tx: Tx,
  c: {
    id: string
    draft: unknown
    summary: string
    origin: string
    by: string | null
    at: number
    heldUntil?: number | null
  },
) =>
  tx.run(
    `INSERT INTO calls (id, draft, summary, origin, taken_by, held_until, created_at)
    VALUES (?, ?, ?, ?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE draft = VALUES(draft), summary = VALUES(summary),
      taken_by = COALESCE(taken_by, VALUES(taken_by)), held_until = VALUES(held_until),
      version = version + 1`,
    [
      c.id,
      JSON.stringify(c.draft),
      c.summary,
      c.origin,
      c.by,
      c.heldUntil ? sqlInstant(c.heldUntil) : null,
      sqlInstant(c.at),
    ],
  )
export const markCall = async (
  tx: Tx,
  id: string,
  state: string,
  values: {
    workOrderId?: string
    quoteId?: string
    reason?: string
    callBackOn?: string | null
    assignedTo?: string | null
  },
) =>
  (
    await tx.run(
      `UPDATE calls
      SET state = ?, work_order_id = COALESCE(?, work_order_id), quote_id = COALESCE(?, quote_id),
        reason = ?, call_back_on = ?, assigned_to = ?, version = version + 1
      WHERE id = ? AND state IN ("open", "put_off")`,
      [
        state,
        values.workOrderId ?? null,
        values.quoteId ?? null,
        values.reason ?? '',
        values.callBackOn ?? null,
        values.assignedTo ?? null,
        id,
      ],
    )
  ).affected
/** Calls that hold a time on a day while their details are still being asked for. */
export const heldOn = (tx: Tx, date: string) =>
  tx.rows<CallRow>(
    `${CALL}
    WHERE k.state IN ('open', 'put_off')
      AND JSON_VALUE(k.draft, '$.date') = ?
      AND JSON_VALUE(k.draft, '$.start') <> ''
      AND JSON_VALUE(k.draft, '$.technicianId') IS NOT NULL
    ORDER BY k.created_at LIMIT 100`,
    [date],
  )
/** Times that calls hold at present, against others who look for one. */
export const heldNow = (tx: Tx, now: number, except: string | null) =>
  tx.rows<CallRow>(
    `${CALL}
    WHERE k.held_until > ? AND k.state IN ('open', 'put_off')${except ? ' AND k.id <> ?' : ''}
    LIMIT 200`,
    except ? [sqlInstant(now), except] : [sqlInstant(now)],
  )
/** Calls that began between two instants, those that are alike together, with what was billed and paid of the work that came of them. */
export const alikeCalls = (tx: Tx, from: number, to: number) =>
  tx.rows<AlikeCalls>(
    `SELECT a.about, a.kind, a.source, a.outcome, COUNT(*) AS calls,
      CAST(COALESCE(SUM(i.billed), 0) AS SIGNED) AS billedMinor,
      CAST(COALESCE(SUM(i.paid), 0) AS SIGNED) AS paidMinor
    FROM (SELECT COALESCE(JSON_VALUE(k.draft, '$.about'), 'new_work') AS about,
        COALESCE(w.kind, JSON_VALUE(k.draft, '$.kind'), '') AS kind,
        COALESCE(NULLIF(w.source, ''), NULLIF(JSON_VALUE(k.draft, '$.source'), ''), c.source, '')
          AS source,
        CASE WHEN w.id IS NOT NULL THEN 'work' WHEN k.state = 'quoted' THEN 'quote'
          WHEN k.state IN ('answered', 'declined') THEN k.state ELSE 'waiting' END AS outcome,
        w.id AS work_order_id
      FROM calls k
      LEFT JOIN quotes q ON q.id = k.quote_id
      LEFT JOIN work_orders w ON w.id = COALESCE(k.work_order_id, q.work_order_id)
      LEFT JOIN customers c ON c.id = COALESCE(w.customer_id, q.customer_id,
        JSON_VALUE(k.draft, '$.customerId'))
      WHERE k.created_at >= ? AND k.created_at < ?) a
    LEFT JOIN (SELECT work_order_id, SUM(total_minor) AS billed, SUM(paid_minor) AS paid
      FROM invoices WHERE state <> 'void' GROUP BY work_order_id) i
      ON i.work_order_id = a.work_order_id
    GROUP BY a.about, a.kind, a.source, a.outcome`,
    [sqlInstant(from), sqlInstant(to)],
  )
export const insertForm = async (
  tx: Tx,
  f: { id: string; fields: object; problem: object; at: number; most: number },
): Promise<void> => {
  await tx.run('INSERT INTO sent_forms (id, fields, problem, kept_at) VALUES (?, ?, ?, ?)', [
    f.id,
    JSON.stringify(f.fields),
    JSON.stringify(f.problem),
    sqlInstant(f.at),
  ])
  await tx.run(
    `DELETE
    FROM sent_forms
    WHERE kept_at <= (SELECT kept_at FROM (SELECT kept_at FROM sent_forms ORDER BY kept_at DESC
      LIMIT 1 OFFSET ?) oldest)`,
    [String(f.most)],
  )
}
/** What was typed into a form that was sent back, and why. */
export interface SentForm {
  fields: Record<string, string>
  problem: Pick<Problem, 'code' | 'detail' | 'errors'>
}
export const formById = (tx: Tx, id: string, since: number) =>
  tx.row<SentForm>('SELECT fields, problem FROM sent_forms WHERE id = ? AND kept_at > ?', [
    id,
    sqlInstant(since),
  ])
export const sweepForms = (tx: Tx, before: string) =>
  tx.run('DELETE FROM sent_forms WHERE kept_at < ?', [before])

/** What was taken from one address lately, by the stamp of its form as well: a form that was drawn once is good for a few. */
export const requestsSince = async (tx: Tx, source: string, since: number) =>
  (await tx.row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM request_marks WHERE at > ? AND source = ?',
    [sqlInstant(since), source],
  ))!.n
/** One at a time for each source: two that arrive together must not both see the place that is left. */
export const lockSource = async (tx: Tx, source: string, at: number): Promise<void> => {
  await tx.run(
    `INSERT INTO tries (id, count, last_at)
    VALUES (?, 0, ?)
    ON DUPLICATE KEY UPDATE last_at = VALUES(last_at)`,
    [source, sqlInstant(at)],
  )
}
export const markRequest = (tx: Tx, source: string, at: number) =>
  tx.run('INSERT INTO request_marks (source, at) VALUES (?, ?)', [source, sqlInstant(at)])
export const sweepRequests = (tx: Tx, before: string) =>
  tx.run('DELETE FROM request_marks WHERE at < ?', [before])
/** One at a time for the whole firm: reminders are sent by the clock and by people. */
export const lockCompany = (tx: Tx) => tx.row('SELECT id FROM company WHERE id = 1 FOR UPDATE')
/** The calls that a quote came of. */
export const callsOfQuote = async (tx: Tx, quoteId: string): Promise<string[]> =>
  (await tx.rows<{ id: string }>('SELECT id FROM calls WHERE quote_id = ?', [quoteId])).map(
    ({ id }) => id,
  )
export interface EndedCall {
  id: string
  summary: string
  state: 'answered' | 'declined'
  reason: string
  createdAt: string
}
/** Calls that no work came of, since a moment; the latest first. */
export const endedCalls = (tx: Tx, since: number) =>
  tx.rows<EndedCall>(
    `SELECT id, summary, state, reason, created_at
    FROM calls
    WHERE state IN ('answered', 'declined') AND created_at >= ?
    ORDER BY created_at DESC, id DESC LIMIT 30`,
    [sqlInstant(since)],
  )
/** A call that ended without work waits again. */
export const openAgain = async (tx: Tx, id: string) =>
  (
    await tx.run(
      `UPDATE calls SET state = 'open', reason = '', held_until = NULL, version = version + 1
      WHERE id = ? AND state IN ('answered', 'declined')`,
      [id],
    )
  ).affected
