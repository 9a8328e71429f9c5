// SQL of the schedule: technicians, time off, visits of a stretch of days.
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import { goesThere } from '../visits/queries'
import type { Place } from '../../core/dispatch/greatCircle'
import { placeOf } from '../../core/dispatch/placeOf'
import type { Licence } from '../../core/dispatch/skillsOn'
import type { VisitState } from '../../core/visits/visitLifecycle'
import type { Answer, Body } from '../../shared/api'

/** Working hours by ISO weekday, local times, with how many visits fit into morning and afternoon, and the break in between. */
export type Hours = Record<
  string,
  {
    from: string
    to: string
    morning: number
    afternoon: number
    breakFrom?: string
    breakTo?: string
  }
>
export const PERSON_KINDS = ['employee', 'subcontractor', 'apprentice'] as const
export interface Technician {
  id: string
  name: string
  skills: string[]
  licences: Licence[]
  hours: Hours
  territoryIds: string[]
  kind: (typeof PERSON_KINDS)[number]
  goesWith: string | null
  startsAt: 'home' | 'yard'
  endsAt: 'home' | 'yard'
  home: Place | null
  start: Place | null
  end: Place | null
}
type RawTechnician = Omit<Technician, 'home' | 'start' | 'end'> & {
  lat: number | null
  lon: number | null
  yardLat: number | null
  yardLon: number | null
}
function fix<T extends RawTechnician>({ lat, lon, yardLat, yardLon, ...t }: T) {
  const [home, yard] = [placeOf({ lat, lon }), placeOf({ lat: yardLat, lon: yardLon })]
  return {
    ...t,
    home,
    start: t.startsAt === 'yard' ? yard : home,
    end: t.endsAt === 'yard' ? yard : home,
  }
}
const TECHNICIAN = `p.id, p.name, p.skills, p.licences, p.hours, p.territory_ids, p.kind,
    p.goes_with, p.starts_at, p.ends_at, p.lat, p.lon, y.yard_lat, y.yard_lon`
const PEOPLE = 'people p JOIN company y ON y.id = 1'
export const technicians = async (tx: Tx): Promise<Technician[]> =>
  (
    await tx.rows<RawTechnician>(
      `SELECT ${TECHNICIAN}
      FROM ${PEOPLE}
      WHERE p.bookable AND p.active
      ORDER BY p.position, p.name LIMIT 200`,
    )
  ).map(fix)
export const technicianById = async (tx: Tx, id: string): Promise<Technician | null> => {
  const t = await tx.row<RawTechnician>(
    `SELECT ${TECHNICIAN} FROM ${PEOPLE} WHERE p.id = ? AND p.active`,
    [id],
  )
  return t && fix(t)
}
/**
 * One at a time for each person: two callers must not both be given the same time. Always in order of
 * their identifiers, and before anything is looked up that the booking depends on.
 */
export async function lockPeople(tx: Tx, ids: readonly (string | null)[]): Promise<void> {
  const people = [...new Set(ids)].filter((id) => id !== null).sort()
  if (people.length)
    await tx.rows(
      `SELECT id FROM people WHERE id IN (${placeholders(people)}) ORDER BY id FOR UPDATE`,
      people,
    )
}
export const timeOffBetween = async (tx: Tx, from: number, to: number) =>
  (
    await tx.rows<{ personId: string; fromAt: string; toAt: string; reason: string }>(
      'SELECT person_id, from_at, to_at, reason FROM time_off WHERE from_at < ? AND to_at > ?',
      [sqlInstant(to), sqlInstant(from)],
    )
  ).map((t) => ({
    personId: t.personId,
    from: Date.parse(t.fromAt),
    to: Date.parse(t.toAt),
    reason: t.reason,
  }))

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
}
const BOARD = `SELECT v.id, v.version, v.work_order_id, w.number, w.title, w.kind,
    c.name AS customer, s.name AS site, s.id AS siteId, s.line1, s.town, s.postcode, s.lat, s.lon,
    v.technician_id, v.start_at, v.duration_seconds, v.state, v.promise_date,
    LEFT(v.promise_from, 5) AS promiseFrom, LEFT(v.promise_to, 5) AS promiseTo, w.created_at,
    v.started_at, v.finished_at, v.locked, v.note, CONCAT_WS(' ', NULLIF(JSON_VALUE(w.contact,
    '$.name'), ''), COALESCE(NULLIF(JSON_VALUE(w.contact, '$.phone'), ''), c.phone)) AS contact,
    s.access_note, c.office_note, (SELECT GROUP_CONCAT(vc.person_id ORDER BY vc.person_id) FROM
    visit_crew vc WHERE vc.visit_id = v.id) AS crew,
    (SELECT q.number FROM quotes q WHERE q.work_order_id = w.id ORDER BY q.created_at DESC LIMIT 1)
    AS quote, (SELECT CAST(COALESCE(SUM(l.net_minor), 0) AS SIGNED) FROM work_lines l WHERE
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
/** What is asked of a plan, and what it proposes: kept as JSON. */
export type Wish = Omit<Body<'beginPlan'>, 'id'>
export type Proposal = Pick<Answer<'dayPlan'>, 'before' | 'after' | 'changes'>
export interface DayPlanRow {
  id: string
  state: 'running' | 'ready' | 'accepted' | 'stopped' | 'failed'
  wish: Wish
  progress: string
  result: Proposal | null
  problem: string
  askedBy: string
  askedAt: string
}
export const dayPlanById = (tx: Tx, id: string, lock = false) =>
  tx.row<DayPlanRow>(
    `SELECT id, state, wish, progress, result, problem, asked_by, asked_at
    FROM day_plans
    WHERE id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
export const insertDayPlan = (tx: Tx, p: { id: string; wish: object; by: string; at: number }) =>
  tx.run(
    'INSERT INTO day_plans (id, state, wish, asked_by, asked_at, alive_at) VALUES (?, "running", ?, ?, ?, ?)',
    [p.id, JSON.stringify(p.wish), p.by, sqlInstant(p.at), sqlInstant(Date.now())],
  )
export const setPlanProgress = (tx: Tx, id: string, progress: number) =>
  tx.run('UPDATE day_plans SET progress = ? WHERE id = ? AND state = "running"', [
    progress.toFixed(4),
    id,
  ])
export const setPlanState = (
  tx: Tx,
  id: string,
  state: DayPlanRow['state'],
  values: { result?: object; problem?: string },
) =>
  tx.run(
    'UPDATE day_plans SET state = ?, result = COALESCE(?, result), problem = ?, progress = 1 WHERE id = ?',
    [
      state,
      values.result ? JSON.stringify(values.result) : null,
      (values.problem ?? '').slice(0, 200),
      id,
    ],
  )
/** Plans that nobody works on any more: their process is gone. */
export const failDeadPlans = (tx: Tx, silentSince: string) =>
  tx.run(
    `UPDATE day_plans
    SET state = "failed",
      problem = "The server was restarted while it planned. Nothing was changed; ask again."
    WHERE state = "running" AND (alive_at IS NULL OR alive_at < ?)`,
    [silentSince],
  )
/** Says that a plan is worked on, and learns whether somebody wants it stopped, in whichever process. */
export const keepPlanAlive = async (tx: Tx, id: string, at: number): Promise<boolean> => {
  await tx.run('UPDATE day_plans SET alive_at = ? WHERE id = ? AND state = "running"', [
    sqlInstant(at),
    id,
  ])
  return Boolean(
    (
      await tx.row<{ wanted: boolean }>(
        'SELECT stop_wanted AS wanted FROM day_plans WHERE id = ?',
        [id],
      )
    )?.wanted,
  )
}
export const wantPlanStopped = (tx: Tx, id: string) =>
  tx.run('UPDATE day_plans SET stop_wanted = TRUE WHERE id = ? AND state = "running"', [id])
export const plansRunningFor = async (tx: Tx, personId: string) =>
  (await tx.row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM day_plans WHERE state = "running" AND asked_by = ?',
    [personId],
  ))!.n
export const insertTimeOff = (
  tx: Tx,
  t: { id: string; personId: string; from: number; to: number; reason: string },
) =>
  tx.run('INSERT INTO time_off (id, person_id, from_at, to_at, reason) VALUES (?, ?, ?, ?, ?)', [
    t.id,
    t.personId,
    sqlInstant(t.from),
    sqlInstant(t.to),
    t.reason,
  ])
export const peopleSetUp = async (tx: Tx) =>
  (
    await tx.rows<RawTechnician & { version: number; calendar: number }>(
      `SELECT ${TECHNICIAN}, p.version, p.feed_hash IS NOT NULL AS calendar
      FROM ${PEOPLE}
      WHERE p.bookable AND p.active
      ORDER BY p.position, p.name LIMIT 200`,
    )
  ).map((t) => ({ ...fix(t), version: t.version, calendar: Boolean(t.calendar) }))
export const updateTechnician = async (
  tx: Tx,
  id: string,
  version: number,
  t: Pick<
    Technician,
    | 'hours'
    | 'skills'
    | 'licences'
    | 'territoryIds'
    | 'kind'
    | 'goesWith'
    | 'startsAt'
    | 'endsAt'
    | 'home'
  >,
) =>
  (
    await tx.run(
      `UPDATE people
      SET hours = ?, skills = ?, licences = ?, territory_ids = ?, kind = ?, goes_with = ?,
        starts_at = ?, ends_at = ?, lat = ?, lon = ?, version = version + 1
      WHERE id = ? AND version = ?`,
      [
        JSON.stringify(t.hours),
        JSON.stringify(t.skills),
        JSON.stringify(t.licences),
        JSON.stringify(t.territoryIds),
        t.kind,
        t.goesWith,
        t.startsAt,
        t.endsAt,
        t.home?.lat ?? null,
        t.home?.lon ?? null,
        id,
        version,
      ],
    )
  ).affected
export const comingOff = (tx: Tx, from: number) =>
  tx.rows<{ id: string; personId: string; from: string; to: string; reason: string }>(
    `SELECT id, person_id, from_at AS \`from\`, to_at AS \`to\`, reason
    FROM time_off
    WHERE to_at > ?
    ORDER BY from_at LIMIT 500`,
    [sqlInstant(from)],
  )
export const removeTimeOff = async (tx: Tx, id: string) =>
  (await tx.run('DELETE FROM time_off WHERE id = ?', [id])).affected
export const insertEntry = (
  tx: Tx,
  e: { id: string; personId: string; from: number; to: number; title: string },
) =>
  tx.run('INSERT INTO day_entries (id, person_id, from_at, to_at, title) VALUES (?, ?, ?, ?, ?)', [
    e.id,
    e.personId,
    sqlInstant(e.from),
    sqlInstant(e.to),
    e.title,
  ])
export const removeEntry = async (tx: Tx, id: string) =>
  (await tx.run('DELETE FROM day_entries WHERE id = ?', [id])).affected
export const putTerritory = (tx: Tx, t: { id: string; name: string; postcodes: string[] }) =>
  tx.run(
    `INSERT INTO territories (id, name, postcodes)
    VALUES (?, ?, ?)
    ON DUPLICATE KEY UPDATE name = VALUES(name), postcodes = VALUES(postcodes)`,
    [t.id, t.name, JSON.stringify(t.postcodes)],
  )
export const putHoliday = (tx: Tx, date: string, name: string) =>
  name
    ? tx.run(
        'INSERT INTO holidays (on_date, name) VALUES (?, ?) ON DUPLICATE KEY UPDATE name = VALUES(name)',
        [date, name],
      )
    : tx.run('DELETE FROM holidays WHERE on_date = ?', [date])
export const sitesByPostcode = (tx: Tx) =>
  tx.rows<{ postcode: string; sites: number }>(
    'SELECT postcode, COUNT(*) AS sites FROM sites GROUP BY postcode LIMIT 20000',
  )
export const setFeed = (tx: Tx, personId: string, hash: string) =>
  tx.run('UPDATE people SET feed_hash = ? WHERE id = ?', [hash, personId])
export const personByFeed = (tx: Tx, hash: string) =>
  tx.row<{ id: string; name: string }>(
    'SELECT id, name FROM people WHERE feed_hash = ? AND active',
    [hash],
  )
export interface FeedVisit {
  id: string
  version: number
  number: string
  title: string
  problem: string
  customer: string
  contact: string
  site: string
  line1: string
  town: string
  accessNote: string
  lat: number | null
  lon: number | null
  startAt: string
  durationSeconds: number
  promiseFrom: string | null
  promiseTo: string | null
  state: string
  createdAt: string
}
const FEED = `SELECT v.id, v.version, w.number, w.title, w.problem, c.name AS customer,
    CONCAT_WS(' ', JSON_VALUE(w.contact, '$.name'), JSON_VALUE(w.contact, '$.phone')) AS contact,
    s.name AS site, s.line1, s.town, s.access_note, s.lat, s.lon, v.start_at, v.duration_seconds,
    LEFT(v.promise_from, 5) AS promiseFrom, LEFT(v.promise_to, 5) AS promiseTo, v.state,
    w.created_at
  FROM visits v
  JOIN work_orders w ON w.id = v.work_order_id
  JOIN customers c ON c.id = w.customer_id
  JOIN sites s ON s.id = w.site_id`
export const feedVisits = (tx: Tx, personId: string, from: number, to: number) =>
  tx.rows<FeedVisit>(
    `${FEED} WHERE ${goesThere} AND v.start_at >= ? AND v.start_at < ? ORDER BY v.start_at LIMIT 1000`,
    [personId, personId, personId, sqlInstant(from), sqlInstant(to)],
  )
export const feedVisit = (tx: Tx, id: string) =>
  tx.row<FeedVisit>(`${FEED} WHERE v.id = ? AND v.start_at IS NOT NULL`, [id])
export const currentRoads = (tx: Tx) =>
  tx.row<{ id: string; name: string; importedAt: string }>(
    'SELECT id, name, imported_at FROM road_networks ORDER BY imported_at DESC, id DESC LIMIT 1',
  )
export const roadsData = async (tx: Tx, id: string) =>
  (await tx.row<{ data: Buffer }>('SELECT data FROM road_networks WHERE id = ?', [id]))?.data ??
  null
export const insertRoads = (
  tx: Tx,
  r: { id: string; name: string; roads: number; data: Buffer; by: string | null; at: number },
) =>
  tx.run(
    'INSERT INTO road_networks (id, name, roads, data, imported_by, imported_at) VALUES (?, ?, ?, ?, ?, ?)',
    [r.id, r.name, r.roads, r.data, r.by, sqlInstant(r.at)],
  )
/** Technicians who have finished a visit for a customer. */
export const knownTo = async (tx: Tx, customerId: string) =>
  (
    await tx.rows<{ id: string }>(
      `SELECT DISTINCT v.technician_id AS id
      FROM work_orders w
      JOIN visits v ON v.work_order_id = w.id
      WHERE w.customer_id = ? AND v.state = "finished"
        AND v.technician_id IS NOT NULL LIMIT 50`,
      [customerId],
    )
  ).map((r) => r.id)
export const entriesBetween = async (tx: Tx, from: number, to: number) =>
  (
    await tx.rows<{
      id: string
      personId: string
      fromAt: string
      toAt: string
      title: string
      version: number
    }>(
      `SELECT id, person_id, from_at, to_at, title, version
      FROM day_entries
      WHERE from_at < ? AND to_at > ?
      ORDER BY from_at`,
      [sqlInstant(to), sqlInstant(from)],
    )
  ).map((e) => ({ ...e, from: Date.parse(e.fromAt), to: Date.parse(e.toAt) }))
export const holidaysBetween = (tx: Tx, from: string, to: string) =>
  tx.rows<{ date: string; name: string }>(
    'SELECT on_date AS `date`, name FROM holidays WHERE on_date BETWEEN ? AND ? ORDER BY on_date',
    [from, to],
  )
export const boardVisit = (tx: Tx, id: string) =>
  tx.row<BoardVisit>(`${BOARD} WHERE v.id = ?`, [id])
export const boardVisits = (tx: Tx, ids: string[]) =>
  tx.rows<BoardVisit>(`${BOARD} WHERE v.id IN (${placeholders(ids)})`, ids)
/** Work orders without a slot: a visit without time or person, or none at all that still runs. What is parked comes back on its day. */
export const unplaced = (tx: Tx, today: string) =>
  tx.rows<BoardVisit>(
    `${BOARD}
    WHERE v.state = 'planned' AND (v.start_at IS NULL OR v.technician_id IS NULL)
      AND w.state NOT IN ('cancelled', 'closed')
      AND (w.follow_up_on IS NULL OR w.follow_up_on <= ?)
    ORDER BY w.created_at LIMIT 200`,
    [today],
  )
/** What a person looks at again and again: filters of the schedule by name. */
export const savedFiltersOf = (tx: Tx, personId: string) =>
  tx.rows<{ id: string; name: string; filter: object }>(
    'SELECT id, name, filter FROM saved_filters WHERE person_id = ? ORDER BY name LIMIT 50',
    [personId],
  )
export const putSavedFilter = (
  tx: Tx,
  l: { id: string; personId: string; name: string; filter: object },
) =>
  tx.run(
    `INSERT INTO saved_filters (id, person_id, name, filter)
    VALUES (?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE filter = VALUES(filter)`,
    [l.id, l.personId, l.name, JSON.stringify(l.filter)],
  )
export const deleteSavedFilter = async (tx: Tx, id: string, personId: string) =>
  (await tx.run('DELETE FROM saved_filters WHERE id = ? AND person_id = ?', [id, personId]))
    .affected
/** Where each technician was heard of last. */
export const positionsNow = (tx: Tx) =>
  tx.rows<{ personId: string; at: string; lat: number; lon: number }>(
    'SELECT person_id, at, lat, lon FROM positions LIMIT 500',
  )
export const keepPosition = (
  tx: Tx,
  p: { personId: string; at: number; lat: number; lon: number },
) =>
  tx.run(
    `INSERT INTO positions (person_id, at, lat, lon)
    SELECT id, ?, ?, ?
    FROM people
    WHERE id = ? AND bookable
    ON DUPLICATE KEY UPDATE lat = IF(VALUES(at) >= positions.at, VALUES(lat), positions.lat),
      lon = IF(VALUES(at) >= positions.at, VALUES(lon), positions.lon),
      at = GREATEST(positions.at, VALUES(at))`,
    [sqlInstant(p.at), p.lat, p.lon, p.personId],
  )
export const placedSites = (tx: Tx) =>
  tx.rows<{
    id: string
    customerId: string
    customer: string
    line1: string
    town: string
    postcode: string
    lat: number
    lon: number
  }>(
    `SELECT s.id, s.customer_id, c.name AS customer, s.line1, s.town, s.postcode, s.lat, s.lon
    FROM sites s
    JOIN customers c ON c.id = s.customer_id
    WHERE s.lat IS NOT NULL AND c.merged_into IS NULL LIMIT 20000`,
  )
