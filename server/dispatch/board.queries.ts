// SQL of visits as the schedule shows them, and who goes along.
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import type { NextStep, VisitState } from '../../core/visits/visitLifecycle'
import type { WaitsAt } from '../subject'
import { copied } from '../visits/visits.queries'
import { inTray } from '../visits/waiting.queries'

export interface BoardVisit {
  id: string
  version: number
  workOrderId: string
  number: string
  title: string
  kind: string
  customer: string
  site: string
  siteId: string
  line1: string
  town: string
  postcode: string
  lat: number | null
  lon: number | null
  technicianId: string | null
  startAt: string | null
  durationSeconds: number
  state: VisitState
  promiseDate: string | null
  promiseFrom: string | null
  promiseTo: string | null
  toldDate: string | null
  toldFrom: string | null
  toldTo: string | null
  net: number
  createdAt: string
  setOffAt: string | null
  startedAt: string | null
  finishedAt: string | null
  locked: boolean
  note: string
  crew: string | null
  contact: string
  accessNote: string
  officeNote: string
  quote: string | null
  /** the state of the visit that it comes again for */
  again: VisitState | null
  nextStep: NextStep | null
}
const BOARD = `SELECT v.id, v.version, v.work_order_id, w.number, w.title, w.kind,
    ${copied('name', 'c.name')} AS customer, ${copied('siteName', 's.name')} AS site, s.id AS siteId,
    ${copied('siteLine1', 's.line1')} AS line1, ${copied('siteTown', 's.town')} AS town, s.postcode, s.lat, s.lon,
    v.technician_id, v.start_at, v.duration_seconds, v.state, v.promise_date,
    LEFT(v.promise_from, 5) AS promiseFrom, LEFT(v.promise_to, 5) AS promiseTo,
    v.told_date, LEFT(v.told_from, 5) AS toldFrom, LEFT(v.told_to, 5) AS toldTo, w.created_at,
    v.started_at, v.finished_at, v.locked, v.note, v.next_step, CONCAT_WS(' ', NULLIF(JSON_VALUE(w.contact,
    '$.name'), ''), COALESCE(NULLIF(JSON_VALUE(w.contact, '$.phone'), ''), ${copied('phone', 'c.phone')})) AS contact,
    ${copied('accessNote', 's.access_note')} AS access_note, c.office_note, (SELECT GROUP_CONCAT(vc.person_id ORDER BY vc.person_id) FROM
    visit_crew vc WHERE vc.visit_id = v.id) AS crew,
    (SELECT q.number FROM quotes q WHERE q.work_order_id = w.id ORDER BY q.created_at DESC LIMIT 1)
    AS quote, (SELECT a.state FROM visits a WHERE a.id = v.again_of) AS again, (SELECT CAST(COALESCE(SUM(l.net_minor), 0) AS SIGNED) FROM work_lines l WHERE
    l.work_order_id = w.id AND NOT l.removed) AS net,
    (SELECT MIN(k.started_at) FROM clock_intervals k WHERE k.visit_id = v.id AND k.kind = 'drive')
    AS setOffAt
  FROM visits v
  JOIN work_orders w ON w.id = v.work_order_id
  JOIN customers c ON c.id = w.customer_id
  JOIN sites s ON s.id = w.site_id`
/** Who goes along with the one whose visit it is. */
export const crewIds = (v: { crew: string | null }): string[] => v.crew?.split(',') ?? []
export const visitCrew = async (tx: Tx, visitId: string) =>
  (await tx.row<{ crew: string | null }>(
    'SELECT GROUP_CONCAT(person_id ORDER BY person_id) AS crew FROM visit_crew WHERE visit_id = ?',
    [visitId],
  ))!.crew
export const setCrew = async (tx: Tx, visitId: string, people: string[]): Promise<void> => {
  await tx.run('DELETE FROM visit_crew WHERE visit_id = ?', [visitId])
  if (people.length)
    await tx.many(
      'INSERT INTO visit_crew (visit_id, person_id) VALUES ?',
      people.map((p) => [visitId, p]),
    )
}
export const setLocked = async (tx: Tx, id: string, version: number, locked: boolean) =>
  (
    await tx.run(
      'UPDATE visits SET locked = ?, version = version + 1 WHERE id = ? AND version = ?',
      [locked, id, version],
    )
  ).affected
export const visitsBetween = (tx: Tx, from: number, to: number) =>
  tx.rows<BoardVisit>(
    `${BOARD}
    WHERE v.state <> 'cancelled' AND v.start_at >= ? AND v.start_at < ?
    ORDER BY v.start_at, v.id LIMIT 5000`,
    [sqlInstant(from), sqlInstant(to)],
  )
/** What the search for openings needs of the booked visits, and no more. */
export const stopsBetween = (tx: Tx, from: number, to: number) =>
  tx.rows<{
    id: string
    technicianId: string
    customer: string
    startAt: string
    durationSeconds: number
    state: VisitState
    promiseDate: string | null
    promiseTo: string | null
    startedAt: string | null
    finishedAt: string | null
    lat: number | null
    lon: number | null
    locked: boolean
    crew: string | null
  }>(
    `SELECT v.id, v.technician_id, c.name AS customer, v.start_at, v.duration_seconds, v.state,
      v.promise_date, LEFT(v.promise_to, 5) AS promiseTo, v.started_at, v.finished_at, s.lat, s.lon,
      v.locked, (SELECT GROUP_CONCAT(vc.person_id) FROM visit_crew vc WHERE vc.visit_id = v.id) AS
      crew
    FROM visits v
    STRAIGHT_JOIN work_orders w ON w.id = v.work_order_id
    JOIN customers c ON c.id = w.customer_id
    JOIN sites s ON s.id = w.site_id
    WHERE v.state <> 'cancelled' AND v.technician_id IS NOT NULL
      AND v.start_at >= ? AND v.start_at < ?
    ORDER BY v.start_at LIMIT 20000`,
    [sqlInstant(from), sqlInstant(to)],
  )
/** What skills the priced work of these visits wants. */
export const skillsOfVisits = async (tx: Tx, visitIds: string[]) => {
  const rows = await tx.rows<{ id: string; skills: string[] }>(
    `SELECT v.id, e.skills
    FROM visits v
    JOIN work_lines l ON l.work_order_id = v.work_order_id
      AND NOT l.removed
    JOIN price_entries e ON e.id = l.entry_id
    WHERE v.id IN (${placeholders(visitIds)})
      AND JSON_LENGTH(e.skills) > 0`,
    visitIds,
  )
  const out = new Map<string, Set<string>>()
  for (const r of rows) out.set(r.id, new Set([...(out.get(r.id) ?? []), ...r.skills]))
  return out
}
export const boardVisit = (tx: Tx, id: string) =>
  tx.row<BoardVisit>(`${BOARD} WHERE v.id = ?`, [id])
export const boardVisits = (tx: Tx, ids: string[]) =>
  tx.rows<BoardVisit>(`${BOARD} WHERE v.id IN (${placeholders(ids)})`, ids)
const MOST_IN_TRAY = 1000
/** Visits that want a place, those first whose work was asked for first. */
export function unplaced(tx: Tx, at: WaitsAt) {
  const [where, ...values] = inTray(at)
  return tx.rows<BoardVisit>(
    `${BOARD} WHERE ${where} ORDER BY w.created_at, v.id LIMIT ${MOST_IN_TRAY}`,
    values,
  )
}
