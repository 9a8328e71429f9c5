// SQL of the map: roads, positions, sites with a place.
import { sqlInstant, type Tx } from '../db/pool'

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
