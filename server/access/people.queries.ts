// SQL of the people of the firm: who is there, who was invited, who left.
import type { Role } from '../../core/access/permissions'
import { sqlInstant, type Tx, type Value } from '../db/pool'

export interface StaffRow {
  id: string
  version: number
  name: string
  /** nothing where somebody does not sign in */
  email: string
  phone: string
  payrollNumber: string
  role: Role
  /** the code of a role of the firm's own */
  ownRole: string
  bookable: boolean
  seesCost: boolean
  active: boolean
  leftOn: string | null
  /** somebody who was invited and has no password yet cannot come in */
  comesIn: boolean
  invitedUntil: string | null
  /** signs in with a second step */
  secondStep: boolean
}
const STAFF = `SELECT p.id, p.version, p.name, COALESCE(p.email, '') AS email, p.phone, p.payroll_number, p.role, COALESCE(p.own_role, '') AS ownRole, p.bookable, p.sees_cost, p.active,
      p.left_on, p.password_hash <> '' AS comesIn,
      EXISTS (SELECT 1 FROM second_steps x WHERE x.person_id = p.id AND x.confirmed_at IS NOT NULL)
        AS secondStep,
      (SELECT MAX(k.expires_at) FROM door_keys k WHERE k.person_id = p.id AND k.kind = 'invited'
        AND k.expires_at > UTC_TIMESTAMP(3)) AS invitedUntil
    FROM people p`
const flags = <R extends StaffRow>(row: R): R => ({
  ...row,
  comesIn: Boolean(row.comesIn),
  secondStep: Boolean(row.secondStep),
})
export const staffRows = async (tx: Tx) =>
  (await tx.rows<StaffRow>(`${STAFF} ORDER BY p.active DESC, p.position, p.name LIMIT 300`)).map(
    flags,
  )
/** One of them, locked: who stays an owner is decided by one at a time. */
export async function staffById(tx: Tx, id: string): Promise<StaffRow | null> {
  await tx.rows('SELECT id FROM people ORDER BY id FOR UPDATE')
  const row = await tx.row<StaffRow>(`${STAFF} WHERE p.id = ?`, [id])
  return row && flags(row)
}
export const mailIsTaken = async (tx: Tx, email: string, butFor: string) =>
  (await tx.row('SELECT 1 AS yes FROM people WHERE email = ? AND id <> ?', [email, butFor])) !==
  null
export const otherOwners = async (tx: Tx, id: string) =>
  (await tx.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM people WHERE role = 'owner' AND active AND password_hash <> '' AND id <> ?`,
    [id],
  ))!.n
type Kept = Pick<
  StaffRow,
  'id' | 'name' | 'email' | 'phone' | 'payrollNumber' | 'role' | 'ownRole' | 'bookable' | 'seesCost'
>
const values = (p: Kept): Value[] => [
  ...[
    p.name,
    p.email || null,
    p.phone,
    p.payrollNumber,
    p.role,
    p.ownRole || null,
    p.bookable,
    p.seesCost,
    p.id,
  ],
]
export const insertPerson = (tx: Tx, p: Kept) =>
  tx.run(
    `INSERT INTO people (name, email, phone, payroll_number, role, own_role, bookable, sees_cost, id, position)
    SELECT ?, ?, ?, ?, ?, ?, ?, ?, ?, last.position + 1
    FROM (SELECT COALESCE(MAX(position), -1) AS position FROM people) last`,
    values(p),
  )
export const updatePerson = (tx: Tx, p: Kept) =>
  tx.run(
    `UPDATE people
    SET name = ?, email = ?, phone = ?, payroll_number = ?, role = ?, own_role = ?, bookable = ?, sees_cost = ?,
      version = version + 1
    WHERE id = ?`,
    values(p),
  )
/** What an hour of each costs, the first first. */
export const costRates = (tx: Tx) =>
  tx.rows<{ personId: string; startsAt: string; rate: string }>(
    'SELECT person_id, starts_at, rate FROM cost_rates ORDER BY person_id, starts_at',
  )
/** Whether it was there. */
export const removeCostRate = async (tx: Tx, personId: string, startsAt: number, rate: string) =>
  (
    await tx.run('DELETE FROM cost_rates WHERE person_id = ? AND starts_at = ? AND rate = ?', [
      ...[personId, sqlInstant(startsAt), rate],
    ])
  ).affected > 0
export const putCostRate = (tx: Tx, personId: string, startsAt: number, rate: string) =>
  tx.run(
    `INSERT INTO cost_rates (person_id, starts_at, rate) VALUES (?, ?, ?)
    ON DUPLICATE KEY UPDATE rate = VALUES(rate)`,
    [personId, sqlInstant(startsAt), rate],
  )
export const nextVersion = (tx: Tx, id: string) =>
  tx.run('UPDATE people SET version = version + 1 WHERE id = ?', [id])
/** What they did stays theirs. */
export const setLeft = (tx: Tx, id: string, on: string | null) =>
  tx.run('UPDATE people SET active = ?, left_on = ?, version = version + 1 WHERE id = ?', [
    ...[on === null, on, id],
  ])
/** What still waits for somebody: visits to come, and tasks. */
export const waitsFor = async (tx: Tx, id: string) =>
  (await tx.row<{ visits: number; tasks: number }>(
    `SELECT
      (SELECT COUNT(*) FROM visits v
        WHERE (v.technician_id = ? OR v.id IN (SELECT c.visit_id FROM visit_crew c WHERE c.person_id = ?))
          AND v.state IN ('planned', 'driving', 'on_site', 'paused')) AS visits,
      (SELECT COUNT(*) FROM tasks t WHERE t.owner_id = ? AND t.done_at IS NULL) AS tasks`,
    [id, id, id],
  ))!
export const givePassword = (tx: Tx, id: string, hash: string) =>
  tx.run('UPDATE people SET password_hash = ?, version = version + 1 WHERE id = ?', [hash, id])
