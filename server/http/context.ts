// What every service function is handed: the transaction, the clock, who asks, the company, and a source of identifiers.
import { v7 } from 'uuid'
import { localDate } from '../../core/time/zone'
import { transaction, type Tx } from '../db/pool'
import { nowMs } from './clock'
import { getCompany, type Company } from '../settings/queries'
import type { Role } from '../../shared/schema'
import { LedgerError } from '../../core/errors/LedgerError'

export interface Actor { id: string, name: string, email: string, role: Role, bookable: boolean, seesCost: boolean, takesMoney: boolean }
export interface Ctx { tx: Tx, now: number, today: string, actor: Actor | null, ip: string, company: Company, id(): string }

export async function inContext<T>(who: { actor: Actor | null, ip: string }, work: (ctx: Ctx) => Promise<T>): Promise<T> {
  return transaction(async (tx) => {
    const company = await getCompany(tx)
    if (!company) throw new LedgerError('not_set_up', 503, 'The company is not set up yet.')
    const now = nowMs(company.timeZone)
    return work({ tx, now, today: localDate(now, company.timeZone), actor: who.actor, ip: who.ip, company, id: () => v7({ msecs: now }) })
  })
}
/** Who asks, where the route has already made sure that somebody is signed in. */
export function signedIn(ctx: Ctx): Actor {
  if (!ctx.actor) throw new LedgerError('not_signed_in', 401, 'Sign in first.')
  return ctx.actor
}
