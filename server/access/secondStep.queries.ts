// SQL of second steps and recovery codes.
import type { Role } from '../../core/access/permissions'
import { sqlInstant, type Tx } from '../db/pool'

export interface SecondStep {
  /** sealed */
  secret: string
  confirmedAt: string | null
  /** the period of the last code that was taken */
  lastStep: number
}
export const secondStepOf = (tx: Tx, personId: string) =>
  tx.row<SecondStep>(
    'SELECT secret, confirmed_at, last_step FROM second_steps WHERE person_id = ? FOR UPDATE',
    [personId],
  )
/** Another secret, which holds once a code of it was typed; one that holds is not replaced. */
export const beginSecondStep = async (tx: Tx, personId: string, secret: string) =>
  tx.run(
    `INSERT INTO second_steps (person_id, secret) VALUES (?, ?)
    ON DUPLICATE KEY UPDATE secret = IF(confirmed_at IS NULL, VALUES(secret), secret)`,
    [personId, secret],
  )
export const confirmSecondStep = (tx: Tx, personId: string, at: number) =>
  tx.run('UPDATE second_steps SET confirmed_at = ? WHERE person_id = ?', [sqlInstant(at), personId])
export const usePeriod = (tx: Tx, personId: string, period: number) =>
  tx.run('UPDATE second_steps SET last_step = ? WHERE person_id = ?', [period, personId])
export async function removeSecondStep(tx: Tx, personId: string): Promise<void> {
  await tx.run('DELETE FROM recovery_codes WHERE person_id = ?', [personId])
  await tx.run('DELETE FROM second_steps WHERE person_id = ?', [personId])
}
export async function putRecoveryCodes(tx: Tx, personId: string, hashes: string[]): Promise<void> {
  await tx.run('DELETE FROM recovery_codes WHERE person_id = ?', [personId])
  await tx.many(
    'INSERT INTO recovery_codes (hash, person_id) VALUES ?',
    hashes.map((hash) => [hash, personId]),
  )
}
/** A recovery code opens once. */
export const useRecoveryCode = async (tx: Tx, personId: string, hash: string) =>
  (await tx.run('DELETE FROM recovery_codes WHERE hash = ? AND person_id = ?', [hash, personId]))
    .affected === 1
export const recoveryCodesLeft = async (tx: Tx, personId: string) =>
  (await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM recovery_codes WHERE person_id = ?', [
    personId,
  ]))!.n
export const secondStepRoles = async (tx: Tx, lock = false) =>
  (await tx.row<{ roles: Role[] }>(
    `SELECT second_step_roles AS roles FROM company WHERE id = 1${lock ? ' FOR UPDATE' : ''}`,
  ))!.roles
export const putSecondStepRoles = (tx: Tx, roles: readonly Role[]) =>
  tx.run('UPDATE company SET second_step_roles = ? WHERE id = 1', [JSON.stringify(roles)])
