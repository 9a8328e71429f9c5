// Roles that a firm makes: each begins as one of ours, and is given more or less than that one.
import { ROLES, type Grants, type Permission, type Role } from './permissions'

export type BaseRole = Exclude<Role, 'owner'>
/** What a role of the firm's own may begin as: an owner is an owner. */
export const BASE_ROLES = ROLES.filter((role): role is BaseRole => role !== 'owner')
export interface OwnRole {
  /** what grants and limits name it by; stays, whatever it is called */
  code: string
  name: string
  base: BaseRole
}

/**
 * The role of ours that a key stands for: itself, or what an own one begins as; null where there is none.
 * @example baseOf('foreman', [{ code: 'foreman', name: 'Foreman', base: 'technician' }]) // 'technician'
 */
export const baseOf = (key: string, own: readonly OwnRole[]): Role | null =>
  ROLES.find((role) => role === key) ?? own.find(({ code }) => code === key)?.base ?? null

const changed = (grants: Grants, to: (keys: readonly string[]) => readonly string[]): Grants =>
  Object.fromEntries(
    (Object.entries(grants) as [Permission, readonly string[]][]).map(([act, keys]) => [
      act,
      to(keys),
    ]),
  )
/**
 * What is given to an own role, said of the role that it begins as: whoever has it is asked about as one of those.
 * @example grantsAs({ code: 'foreman', name: 'Foreman', base: 'technician' }, { 'visits.close': ['office', 'foreman'] })
 * // { 'visits.close': ['office', 'foreman', 'technician'] }
 * @example grantsAs({ code: 'foreman', name: 'Foreman', base: 'technician' }, { 'payments.take': ['technician'] })
 * // { 'payments.take': [] }
 */
export const grantsAs = (role: OwnRole | null, grants: Grants): Grants =>
  role === null
    ? grants
    : changed(grants, (keys) => {
        const others = keys.filter((key) => key !== role.base)
        return keys.includes(role.code) ? [...others, role.base] : others
      })
/**
 * Grants with a new role in them: it is given what the one that it begins as is given.
 * @example withRole({ 'visits.close': ['office'] }, { code: 'lead', name: 'Lead', base: 'office' }) // { 'visits.close': ['office', 'lead'] }
 */
export const withRole = (grants: Grants, { code, base }: OwnRole): Grants =>
  changed(grants, (keys) => (keys.includes(base) ? [...keys, code] : keys))
/**
 * Grants without a role that is gone.
 * @example withoutRole({ 'visits.close': ['office', 'lead'] }, 'lead') // { 'visits.close': ['office'] }
 */
export const withoutRole = (grants: Grants, code: string): Grants =>
  changed(grants, (keys) => keys.filter((key) => key !== code))
/**
 * What a role is called: by its own name, or as we call it.
 * @example nameOfRole('office', []) // 'office'
 */
export const nameOfRole = (key: string, own: readonly OwnRole[]): string =>
  own.find(({ code }) => code === key)?.name ?? key
