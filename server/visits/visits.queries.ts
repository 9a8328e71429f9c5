// SQL of visits: their place on the schedule, their technicians, a technician’s day.
import type { Detail } from '../../core/customers/changedDetails'
import type { WorkContact } from '../../core/visits/workContacts'
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import { listOf, type ListIn } from '../db/queries'
import type { NextStep, VisitState } from '../../core/visits/visitLifecycle'
import type { VisitPromise } from '../../core/visits/visitPromise'

export interface VisitRow {
  id: string
  workOrderId: string
  technicianId: string | null
  technician: string | null
  startAt: string | null
  durationSeconds: number
  promiseDate: string | null
  promiseFrom: string | null
  promiseTo: string | null
  state: VisitState
  startedAt: string | null
  finishedAt: string | null
  findings: string
  locked: boolean
  note: string
  againOf: string | null
  nextStep: NextStep | null
  cancelledWithWork: boolean
  phaseId: string | null
  /** what the customer was last told of it */
  toldDate: string | null
  toldFrom: string | null
  toldTo: string | null
  /** the day that they were reminded of */
  remindedFor: string | null
  version: number
}
type Told = Pick<VisitRow, 'toldDate' | 'toldFrom' | 'toldTo'>
type Promised = Pick<VisitRow, 'promiseDate' | 'promiseFrom' | 'promiseTo'>
/** What is promised of a visit; null where nothing is. */
export const promiseOf = ({
  promiseDate: date,
  promiseFrom: from,
  promiseTo: to,
}: Promised): VisitPromise | null => (date ? { date, from, to } : null)
/** What its customer was last told of it. */
export const toldOf = ({
  toldDate: date,
  toldFrom: from,
  toldTo: to,
}: Told): VisitPromise | null => (date ? { date, from, to } : null)
const VISIT = `v.id, v.work_order_id, v.technician_id, p.name AS technician, v.start_at,
    v.duration_seconds, v.promise_date, LEFT(v.promise_from, 5) AS promiseFrom,
    LEFT(v.promise_to, 5) AS promiseTo, v.state, v.started_at, v.finished_at, v.findings, v.locked,
    v.note, v.again_of, v.next_step, v.cancelled_with_work, v.phase_id, v.told_date, LEFT(v.told_from, 5) AS
    toldFrom, LEFT(v.told_to, 5) AS toldTo, v.reminded_for, v.version`
export const visitById = (tx: Tx, id: string, lock = false) =>
  tx.row<VisitRow>(
    `SELECT ${VISIT}
    FROM visits v
    LEFT JOIN people p ON p.id = v.technician_id
    WHERE v.id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
export const visitsIn = (workOrderId: string): ListIn => ({
  columns: VISIT,
  from: 'visits v LEFT JOIN people p ON p.id = v.technician_id WHERE v.work_order_id = ?',
  values: [workOrderId],
  order: `COALESCE(v.start_at, '9999-01-01'), v.id`,
  instants: ['startAt', 'startedAt', 'finishedAt'],
  booleans: ['locked', 'cancelledWithWork'],
})
export const visitsOfWork = (tx: Tx, workOrderId: string) =>
  listOf<VisitRow>(tx, visitsIn(workOrderId))
/** A visit; what is promised of it is told to the customer as it is promised. */
export const insertVisit = (
  tx: Tx,
  v: {
    id: string
    workOrderId: string
    technicianId: string | null
    startAt: number | null
    durationSeconds: number
    promiseDate: string | null
    promiseFrom: string | null
    promiseTo: string | null
    note?: string
    againOf?: string
    phaseId?: string | null
  },
) =>
  tx.run(
    `INSERT INTO visits (id, work_order_id, technician_id, start_at, duration_seconds, promise_date,
      promise_from, promise_to, note, again_of, phase_id, told_date, told_from, told_to, findings)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, promise_date, promise_from, promise_to, "")`,
    [
      v.id,
      v.workOrderId,
      v.technicianId,
      v.startAt === null ? null : sqlInstant(v.startAt),
      v.durationSeconds,
      v.promiseDate,
      v.promiseFrom,
      v.promiseTo,
      v.note ?? '',
      v.againOf ?? null,
      v.phaseId ?? null,
    ],
  )
/** Who leads these visits, without a lock. */
export const technicianIdsOf = async (tx: Tx, visitIds: readonly string[]) =>
  (
    await tx.rows<{ id: string }>(
      `SELECT DISTINCT technician_id AS id
      FROM visits
      WHERE technician_id IS NOT NULL AND id IN (${placeholders(visitIds)})`,
      [...visitIds],
    )
  ).map((r) => r.id)
/** Where a visit stands on the schedule. */
export interface Slot {
  technicianId: string | null
  startAt: number | null
  durationSeconds: number
}
export const moveVisit = async (
  tx: Tx,
  id: string,
  version: number,
  { technicianId, startAt, durationSeconds }: Slot,
) =>
  (
    await tx.run(
      `UPDATE visits
      SET technician_id = ?, start_at = ?, duration_seconds = ?, version = version + 1
      WHERE id = ? AND version = ?`,
      [technicianId, startAt === null ? null : sqlInstant(startAt), durationSeconds, id, version],
    )
  ).affected
/** It was changed: whoever read it before does not know it as it is. */
export const bumpVisit = (tx: Tx, id: string) =>
  tx.run('UPDATE visits SET version = version + 1 WHERE id = ?', [id])
/** What is promised of a visit from now on. */
export const setPromise = (tx: Tx, id: string, promise: VisitPromise | null) =>
  tx.run('UPDATE visits SET promise_date = ?, promise_from = ?, promise_to = ? WHERE id = ?', [
    ...saidIn(promise),
    id,
  ])
/** What its customer knows of a visit from now on. */
export const setTold = (tx: Tx, id: string, told: VisitPromise | null) =>
  tx.run('UPDATE visits SET told_date = ?, told_from = ?, told_to = ? WHERE id = ?', [
    ...saidIn(told),
    id,
  ])
const saidIn = (said: VisitPromise | null) => [
  said?.date ?? null,
  said?.from ?? null,
  said?.from ? said.to : null,
]
export const setReminded = (tx: Tx, id: string, date: string) =>
  tx.run('UPDATE visits SET reminded_for = ? WHERE id = ?', [date, id])
/** The state of a visit, and when it began and ended; a beginning that is known stays. */
export const setVisitState = (
  tx: Tx,
  id: string,
  state: VisitState,
  when: { startedAt?: number | null; finishedAt?: number | null } = {},
) => {
  const { startedAt = null, finishedAt = null } = when
  return tx.run(
    `UPDATE visits
    SET state = ?, started_at = COALESCE(started_at, ?), finished_at = ?, version = version + 1
    WHERE id = ?`,
    [state, startedAt && sqlInstant(startedAt), finishedAt && sqlInstant(finishedAt), id],
  )
}
/** When a visit began and ended follows its clock, once that was mended; what nobody clocked stays as it was said. */
export const followClock = (tx: Tx, id: string) =>
  tx.run(
    `UPDATE visits v
    LEFT JOIN (SELECT visit_id, MIN(started_at) AS began, MAX(ended_at) AS ended FROM clock_intervals
      WHERE visit_id = ? AND kind = 'on_site' GROUP BY visit_id) k ON k.visit_id = v.id
    SET v.started_at = COALESCE(k.began, v.started_at), v.finished_at = IF(v.state = 'finished',
      COALESCE(k.ended, v.finished_at), v.finished_at), v.version = v.version + 1
    WHERE v.id = ?`,
    [id, id],
  )
/** What was proposed at the closed door, on the visit that comes again for it. */
export const setNextStep = (
  tx: Tx,
  againOf: string,
  { step, note }: { step: NextStep; note: string },
) =>
  tx.run(
    `UPDATE visits SET next_step = ?, note = ?, version = version + 1
    WHERE again_of = ? AND state = 'planned'`,
    [step, note, againOf],
  )
/** Visits are cancelled with their work order, or come back with it. */
export const setCancelledWithWork = (tx: Tx, ids: readonly string[], cancelled: boolean) =>
  tx.run(`UPDATE visits SET cancelled_with_work = ? WHERE id IN (${placeholders(ids)})`, [
    cancelled,
    ...ids,
  ])
export const setFindings = async (tx: Tx, id: string, version: number, findings: string) =>
  (
    await tx.run(
      'UPDATE visits SET findings = ?, version = version + 1 WHERE id = ? AND version = ?',
      [findings, id, version],
    )
  ).affected
/** A person goes there: whose visit it is, who goes along with it, and who always goes with that one. Takes the person's identifier three times. */
export const goesThere = `(v.technician_id = ? OR EXISTS (SELECT 1 FROM visit_crew vc WHERE
    vc.visit_id = v.id AND vc.person_id = ?) OR v.technician_id = (SELECT a.goes_with FROM people a
    WHERE a.id = ?))`
export const goesAlong = async (tx: Tx, personId: string, visitId: string) =>
  (await tx.row(`SELECT 1 AS yes FROM visits v WHERE v.id = ? AND ${goesThere}`, [
    visitId,
    personId,
    personId,
    personId,
  ])) !== null
export const mayTechnicianSee = async (tx: Tx, personId: string, workOrderId: string) =>
  (await tx.row(
    `SELECT 1 AS yes FROM visits v WHERE v.work_order_id = ? AND ${goesThere} LIMIT 1`,
    [workOrderId, personId, personId, personId],
  )) !== null
/** A visit with all that a phone shows of it, in one question. */
export interface FieldRow extends VisitRow {
  number: string
  title: string
  currency: string
  contact: { name?: string; phone?: string }
  otherContacts: WorkContact[]
  customer: string
  customerPhone: string
  customerPhone2: string
  tags: string[]
  officeNote: string
  site: string
  line1: string
  town: string
  accessNote: string
  lat: number | null
  lon: number | null
  net: number
}
/** A detail as the work order copied it, else as it is now. */
export const copied = (detail: Detail, now: string) =>
  `COALESCE(JSON_VALUE(w.details, '$.${detail}'), ${now})`
const FIELD = `SELECT ${VISIT}, w.number, w.title, w.currency, w.contact, w.other_contacts,
    ${copied('name', 'c.name')} AS customer, ${copied('phone', 'c.phone')} AS customerPhone,
    ${copied('phone2', 'c.phone2')} AS customerPhone2, c.tags,
    c.office_note, ${copied('siteName', 's.name')} AS site, ${copied('siteLine1', 's.line1')} AS line1,
    ${copied('siteTown', 's.town')} AS town, ${copied('accessNote', 's.access_note')} AS access_note,
    s.lat, s.lon, (SELECT CAST(COALESCE(SUM(l.net_minor), 0) AS SIGNED) FROM work_lines l WHERE
    l.work_order_id = w.id AND NOT l.removed) AS net
  FROM visits v
  STRAIGHT_JOIN work_orders w ON w.id = v.work_order_id
  STRAIGHT_JOIN customers c ON c.id = w.customer_id
  JOIN sites s ON s.id = w.site_id
  LEFT JOIN people p ON p.id = v.technician_id`
/** Visits of some hours, and those that somebody is at, on whatever day they were planned. Takes the two ends. */
const OF_A_DAY = `v.id IN (SELECT d.id FROM (SELECT id FROM visits WHERE start_at >= ? AND start_at
    < ? UNION SELECT id FROM visits WHERE state IN ('driving', 'on_site', 'paused')) d)`
export const fieldRow = (tx: Tx, id: string) => tx.row<FieldRow>(`${FIELD} WHERE v.id = ?`, [id])
/** A technician's day: visits of their own, and those that they go along to. */
export const fieldRows = (tx: Tx, personId: string, from: number, to: number) =>
  tx.rows<FieldRow>(
    `${FIELD} WHERE ${OF_A_DAY} AND ${goesThere} AND v.state <> 'cancelled' ORDER BY v.start_at`,
    [sqlInstant(from), sqlInstant(to), personId, personId, personId],
  )
/** A technician's own visits of some days before, the latest first, that nobody began. */
export const notBegunRows = (tx: Tx, personId: string, from: number, to: number) =>
  tx.rows<FieldRow>(
    `${FIELD} WHERE v.technician_id = ? AND v.start_at >= ? AND v.start_at < ?
      AND v.state = 'planned' ORDER BY v.start_at DESC LIMIT 20`,
    [personId, sqlInstant(from), sqlInstant(to)],
  )
/** The visits of a day that are a person's own or, with `along`, also those that they go along to. */
export const visitsOfTechnician = (
  tx: Tx,
  personId: string,
  { from, to }: { from: number; to: number },
  along = false,
) =>
  tx.rows<VisitRow>(
    `SELECT ${VISIT}
    FROM visits v
    LEFT JOIN people p ON p.id = v.technician_id
    WHERE ${OF_A_DAY} AND ${along ? goesThere : 'v.technician_id = ?'}
      AND v.state <> 'cancelled'
    ORDER BY v.start_at`,
    [sqlInstant(from), sqlInstant(to), ...(along ? [personId, personId, personId] : [personId])],
  )
