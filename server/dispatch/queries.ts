// SQL of who is scheduled: technicians, their time off, meetings and holidays.
import { placeholders, sqlInstant, type Tx } from '../db/pool'
import type { Place } from '../../core/dispatch/greatCircle'
import { placeOf } from '../../core/dispatch/placeOf'
import type { Licence } from '../../core/dispatch/skillsOn'
import type { PERSON_KINDS } from '../../shared/dispatch/setUp'

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
export type RawTechnician = Omit<Technician, 'home' | 'start' | 'end'> & {
  lat: number | null
  lon: number | null
  yardLat: number | null
  yardLon: number | null
}
export function fix<T extends RawTechnician>({ lat, lon, yardLat, yardLon, ...t }: T) {
  const [home, yard] = [placeOf({ lat, lon }), placeOf({ lat: yardLat, lon: yardLon })]
  return {
    ...t,
    home,
    start: t.startsAt === 'yard' ? yard : home,
    end: t.endsAt === 'yard' ? yard : home,
  }
}
export const TECHNICIAN = `p.id, p.name, p.skills, p.licences, p.hours, p.territory_ids, p.kind,
    p.goes_with, p.starts_at, p.ends_at, p.lat, p.lon, y.yard_lat, y.yard_lon`
export const PEOPLE = 'people p JOIN company y ON y.id = 1'
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
