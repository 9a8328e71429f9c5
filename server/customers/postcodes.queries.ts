// SQL of where postcodes and sites are.
import type { Place } from '../../core/dispatch/greatCircle'
import type { PostcodePlace } from '../../core/customers/postcodePlaces'
import { placeholders, type Tx } from '../db/pool'

/** The most exact of these that the table knows. */
export const placeOfPostcode = (tx: Tx, keys: string[]) =>
  tx.row<Place>(
    `SELECT lat, lon FROM postcodes WHERE postcode IN (${placeholders(keys)})
    ORDER BY CHAR_LENGTH(postcode) DESC LIMIT 1`,
    keys,
  )
/** The middle of the sites that are known there. */
export const middleOfSites = (tx: Tx, town: string, postcode: string) =>
  tx.row<{ lat: number | null; lon: number | null }>(
    `SELECT AVG(lat) AS lat, AVG(lon) AS lon
    FROM sites
    WHERE lat IS NOT NULL AND ((postcode <> "" AND postcode = ?) OR (town <> "" AND town = ?))`,
    [postcode, town],
  )
export const putPostcodes = (tx: Tx, places: readonly PostcodePlace[]) =>
  tx.many(
    `INSERT INTO postcodes (postcode, town, lat, lon) VALUES ?
    ON DUPLICATE KEY UPDATE town = VALUES(town), lat = VALUES(lat), lon = VALUES(lon)`,
    places.map(({ postcode, town, lat, lon }) => [postcode, town, lat, lon]),
  )
export const removePostcodes = (tx: Tx) => tx.run('DELETE FROM postcodes')
export const countPostcodes = async (tx: Tx) =>
  (await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM postcodes'))!.n
/** Gives sites that stand nowhere the place of their postcode, or of its first part. Nobody changed them by that. */
export async function placeSites(tx: Tx): Promise<number> {
  let placed = 0
  for (const key of [
    's.postcode',
    `SUBSTRING_INDEX(SUBSTRING_INDEX(TRIM(s.postcode), ' ', 1), '-', 1)`,
  ]) {
    const done = await tx.run(
      `UPDATE sites s JOIN postcodes p ON p.postcode = ${key}
      SET s.lat = p.lat, s.lon = p.lon WHERE s.lat IS NULL`,
    )
    placed += done.affected
  }
  return placed
}
/** Sites that stand nowhere, by what is known of where they are, if anything is; the most first. */
export const nowhere = (tx: Tx) =>
  tx.rows<{ postcode: string; town: string; sites: number }>(
    `SELECT s.postcode, s.town, COUNT(*) AS sites
    FROM sites s
    JOIN customers c ON c.id = s.customer_id
    WHERE s.lat IS NULL AND c.erased_at IS NULL
    GROUP BY s.postcode, s.town
    ORDER BY sites DESC, s.postcode, s.town
    LIMIT 20000`,
  )
