// How far a role may go in this firm, and what is refused beyond that.
import { USUAL_LIMITS, type Limits } from '../../core/access/limits'
import type { Role } from '../../core/access/permissions'
import { LedgerError } from '../../core/errors/LedgerError'
import type { Ctx } from '../http/context'

/** As the owner says, else as is usual. */
export const limitsOf = (
  { company }: { company: Pick<Ctx['company'], 'limits'> },
  role: Role,
): Limits => ({
  ...USUAL_LIMITS[role],
  ...company.limits[role],
})
/** What is refused because it is beyond one's limit, with what it would do, so that it can be asked for. */
export const overLimit = (sentence: string, what: string): LedgerError =>
  new LedgerError('over_limit', `${sentence} Ask for another person’s yes.`, { extra: { what } })
