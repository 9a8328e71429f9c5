// SQL of people, sessions and personal tokens.
import { sqlInstant, type Tx } from '../db/pool'
import type { Actor } from '../http/context'
import { grantsAs, type OwnRole } from '../../core/access/ownRoles'
import { mayRole } from '../../core/access/permissions'
import { DAY } from '../../core/time/units'

/** Somebody as their row says, and who may do what in the firm. */
type Row = Omit<Actor, 'ownRole'> & { ownCode: string | null; ownRoles: OwnRole[] }
type PersonRow = Row & { passwordHash: string }
/** What things cost is seen by who may by their role, and by a person who may besides. */
function seeing<R extends Row>(row: R | null): (Omit<R, 'ownCode' | 'ownRoles'> & Actor) | null {
  if (!row) return null
  const { ownCode, ownRoles, ...person } = row
  const ownRole = ownRoles.find(({ code }) => code === ownCode) ?? null
  const grants = grantsAs(ownRole, person.grants)
  return {
    ...person,
    ...{ ownRole, grants },
    lacksSecondStep: Boolean(person.lacksSecondStep),
    seesCost: person.seesCost || mayRole(person.role, 'costs.see', grants),
  }
}
const COLUMNS = `p.id, p.name, p.email, p.role, p.own_role AS ownCode, f.own_roles, p.bookable, p.sees_cost, f.grants,
      JSON_CONTAINS(f.second_step_roles, JSON_QUOTE(CAST(p.role AS CHAR))) AND NOT EXISTS
      (SELECT 1 FROM second_steps x WHERE x.person_id = p.id AND x.confirmed_at IS NOT NULL) AS
      lacksSecondStep`

export const personByEmail = async (tx: Tx, email: string) =>
  seeing(
    await tx.row<PersonRow>(
      `SELECT ${COLUMNS}, p.password_hash FROM people p JOIN company f WHERE p.email = ? AND p.active`,
      [email],
    ),
  )
/** The hash of a person's password. Of the person alone: what is locked here must not hold up the firm's row. */
export const passwordOf = (tx: Tx, id: string, lock = false) =>
  tx.row<{ passwordHash: string }>(
    `SELECT p.password_hash FROM people p WHERE p.id = ? AND p.active${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
export const setPassword = async (tx: Tx, id: string, hash: string, was: string) =>
  (
    await tx.run(
      'UPDATE people SET password_hash = ?, version = version + 1 WHERE id = ? AND password_hash = ?',
      [hash, id, was],
    )
  ).affected === 1

/** Whose session it is, and the last event that is known at this moment. */
export const personBySession = async (tx: Tx, hash: string, kind: SessionKind) =>
  seeing(
    await tx.row<Row & { lastEvent: number; lastSeenAt: string; readsOnly: boolean }>(
      `SELECT ${COLUMNS}, s.last_seen_at, s.reads_only,
        (SELECT COALESCE(MAX(e.id), 0) FROM events e) AS lastEvent
      FROM sessions s
      JOIN people p ON p.id = s.person_id
      JOIN company f
      WHERE s.id = ? AND s.kind = ? AND s.expires_at > ?
        AND p.active`,
      [hash, kind, sqlInstant(Date.now())],
    ),
  )

export type SessionKind = 'cookie' | 'token'
interface NewSession {
  hash: string
  personId: string
  kind: SessionKind
  label: string
  ip: string
  days: number
  /** changes nothing */
  readsOnly?: boolean
}
export async function addSession(tx: Tx, s: NewSession): Promise<void> {
  const now = Date.now()
  await tx.run(
    `INSERT INTO sessions (id, person_id, kind, label, ip, created_at, last_seen_at, expires_at,
      reads_only)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      s.hash,
      s.personId,
      s.kind,
      s.label,
      s.ip,
      sqlInstant(now),
      sqlInstant(now),
      sqlInstant(now + s.days * DAY),
      s.readsOnly ?? false,
    ],
  )
}
export interface SessionRow {
  id: string
  kind: SessionKind
  label: string
  ip: string
  createdAt: string
  lastSeenAt: string
  expiresAt: string
  readsOnly: boolean
}
export const sessionsOf = (tx: Tx, personId: string): Promise<SessionRow[]> =>
  tx.rows<SessionRow>(
    `SELECT id, kind, label, ip, created_at, last_seen_at, expires_at, reads_only
    FROM sessions
    WHERE person_id = ? AND expires_at > ?
    ORDER BY last_seen_at DESC`,
    [personId, sqlInstant(Date.now())],
  )
/** A token that still opens something, by the hash of its hash, and whose it is. */
export const tokenWithOwner = (tx: Tx, mark: string) =>
  tx.row<{ label: string; expiresAt: string; name: string; email: string }>(
    `SELECT s.label, s.expires_at, p.name, p.email
    FROM sessions s
    JOIN people p ON p.id = s.person_id
    WHERE SHA2(s.id, 256) = ? AND s.kind = 'token' AND s.expires_at > ? AND p.active`,
    [mark, sqlInstant(Date.now())],
  )
export const endSession = async (tx: Tx, hash: string, personId: string) =>
  (await tx.run('DELETE FROM sessions WHERE id = ? AND person_id = ?', [hash, personId]))
    .affected === 1
export const noteSeen = (tx: Tx, hash: string, now: number) =>
  tx.run('UPDATE sessions SET last_seen_at = ? WHERE id = ?', [sqlInstant(now), hash])
/** Whether somebody signed in from there as this person before. */
export const knownFrom = async (tx: Tx, personId: string, ip: string) =>
  (await tx.row('SELECT 1 AS yes FROM sessions WHERE person_id = ? AND ip = ? LIMIT 1', [
    personId,
    ip,
  ])) !== null
export const sweepSessions = (tx: Tx, expired: string) =>
  tx.run('DELETE FROM sessions WHERE expires_at < ?', [expired])

export const allPeople = (tx: Tx) =>
  tx.rows<{
    id: string
    name: string
    role: string
    bookable: boolean
    skills: string[]
  }>(
    'SELECT id, name, role, bookable, skills FROM people WHERE active ORDER BY position, name LIMIT 200',
  )
