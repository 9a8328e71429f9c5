// How far a role may go in this firm, and what is refused beyond that.
import { USUAL_LIMITS, type Limits } from '../../core/access/limits'
import { baseOf, type OwnRole } from '../../core/access/ownRoles'
import { LedgerError } from '../../core/errors/LedgerError'
import type { Ctx } from '../http/context'

/** As the owner says, else as of the role that an own one begins as, else as is usual. */
export function limitsOf(
  { company }: { company: Pick<Ctx['company'], 'limits' | 'ownRoles'> },
  key: string,
): Limits {
  const base = baseOf(key, company.ownRoles) ?? 'technician'
  return { ...USUAL_LIMITS[base], ...company.limits[base], ...company.limits[key] }
}
/** By what grants and limits name the role of somebody. */
export const roleKey = ({ role, ownRole }: { role: string; ownRole: OwnRole | null }): string =>
  ownRole?.code ?? role
/** What is refused because it is beyond one's limit, with what it would do, so that it can be asked for. */
export const overLimit = (sentence: string, what: string): LedgerError =>
  new LedgerError('over_limit', `${sentence} Ask for another person’s yes.`, { extra: { what } })
