// SQL of the schedule’s set-up: hours, time off, territories, holidays, calendars, saved filters.
import { sqlInstant, type Tx } from '../db/pool'
import { copied, goesThere } from '../visits/visits.queries'
import type { Technician, RawTechnician } from './queries'
import { fix, TECHNICIAN, PEOPLE } from './queries'

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
export const removeTerritory = (tx: Tx, id: string) =>
  tx.run('DELETE FROM territories WHERE id = ?', [id])
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
const FEED = `SELECT v.id, v.version, w.number, w.title, w.problem, ${copied('name', 'c.name')} AS customer,
    CONCAT_WS(' ', JSON_VALUE(w.contact, '$.name'), JSON_VALUE(w.contact, '$.phone')) AS contact,
    ${copied('siteName', 's.name')} AS site, ${copied('siteLine1', 's.line1')} AS line1,
    ${copied('siteTown', 's.town')} AS town, ${copied('accessNote', 's.access_note')} AS access_note,
    s.lat, s.lon, v.start_at, v.duration_seconds,
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
