// SQL of ways in that end, and of the people they let in.
import { sqlInstant, type Tx } from '../db/pool'

export type DoorKind = 'begin' | 'invited' | 'forgotten'
export interface Door {
  kind: DoorKind
  personId: string | null
  name: string | null
  email: string | null
}
const DOOR = `SELECT k.kind, k.person_id, p.name, p.email
    FROM door_keys k
    LEFT JOIN people p ON p.id = k.person_id
    WHERE k.hash = ? AND k.expires_at > ? AND (p.id IS NULL OR p.active)`
/** A door that still opens; locked where somebody is about to go through. */
export const doorBy = (tx: Tx, hash: string, lock = false) =>
  tx.row<Door>(`${DOOR}${lock ? ' FOR UPDATE' : ''}`, [hash, sqlInstant(Date.now())])
/** Whoever has another door of the same kind goes through the new one only. */
export async function putDoor(
  tx: Tx,
  door: { hash: string; kind: DoorKind; personId: string | null; lastsMs: number },
): Promise<void> {
  await tx.run('DELETE FROM door_keys WHERE kind = ? AND person_id <=> ?', [
    door.kind,
    door.personId,
  ])
  await tx.run('INSERT INTO door_keys (hash, kind, person_id, expires_at) VALUES (?, ?, ?, ?)', [
    door.hash,
    door.kind,
    door.personId,
    sqlInstant(Date.now() + door.lastsMs),
  ])
}
export const closeDoors = (tx: Tx, personId: string | null) =>
  tx.run('DELETE FROM door_keys WHERE person_id <=> ?', [personId])
export const sweepDoors = (tx: Tx, expired: string) =>
  tx.run('DELETE FROM door_keys WHERE expires_at < ?', [expired])
