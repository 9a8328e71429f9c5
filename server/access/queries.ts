// SQL of people, sessions and failed sign-ins.
import { sqlInstant, type Tx } from '../db/pool'
import type { Actor } from '../http/context'
import { json } from '../settings/queries'

type PersonRow = Actor & { passwordHash: string }
const COLUMNS = 'p.id, p.name, p.email, p.role, p.bookable, p.sees_cost AS seesCost, p.takes_money AS takesMoney'
const person = <T extends Actor>(row: T | null): T | null => row && { ...row, bookable: Boolean(row.bookable), seesCost: Boolean(row.seesCost), takesMoney: Boolean(row.takesMoney) }

export const personByEmail = async (tx: Tx, email: string) => person(await tx.row<PersonRow>(`SELECT ${COLUMNS}, p.password_hash AS passwordHash FROM people p WHERE p.email = ? AND p.active`, [email]))
export const personBySession = async (tx: Tx, hash: string, kind: 'cookie' | 'token') =>
  person(await tx.row<Actor>(`SELECT ${COLUMNS} FROM sessions s JOIN people p ON p.id = s.person_id WHERE s.id = ? AND s.kind = ? AND s.expires_at > ? AND p.active`, [hash, kind, sqlInstant(Date.now())]))
export const addSession = (tx: Tx, hash: string, personId: string, kind: 'cookie' | 'token', label: string, days: number) =>
  tx.run('INSERT INTO sessions (id, person_id, kind, label, created_at, expires_at) VALUES (?, ?, ?, ?, ?, ?)', [hash, personId, kind, label, sqlInstant(Date.now()), sqlInstant(Date.now() + days * 86_400_000)])
export const endSessions = (tx: Tx, hash: string) => tx.run('DELETE FROM sessions WHERE id = ?', [hash])
export const failuresSince = async (tx: Tx, email: string, since: number) => (await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM sign_in_failures WHERE email = ? AND at > ?', [email, sqlInstant(since)]))!.n
export const addFailure = (tx: Tx, email: string, at: number) => tx.run('INSERT INTO sign_in_failures VALUES (?, ?)', [email, sqlInstant(at)])
export const clearFailures = (tx: Tx, email: string) => tx.run('DELETE FROM sign_in_failures WHERE email = ?', [email])
export async function sweepSessions(tx: Tx, expired: string, failed: string): Promise<void> {
  await tx.run('DELETE FROM sessions WHERE expires_at < ?', [expired])
  await tx.run('DELETE FROM sign_in_failures WHERE at < ?', [failed])
}
export async function allPeople(tx: Tx) {
  const rows = await tx.rows<{ id: string, name: string, role: string, bookable: number, skills: unknown }>('SELECT id, name, role, bookable, skills FROM people WHERE active ORDER BY position, name LIMIT 200')
  return rows.map(r => ({ ...r, bookable: Boolean(r.bookable), skills: json<string[]>(r.skills) }))
}
