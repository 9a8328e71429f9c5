// The page that somebody begins on, by what they mostly do.
import type { Role } from '~~/core/access/permissions'

const HOMES: Readonly<Record<Role, string>> = {
  technician: '/field',
  books: '/unpaid',
  office: '/calls',
  dispatch: '/schedule',
  owner: '/schedule',
}
export const homeOf = (role: Role): string => HOMES[role]
