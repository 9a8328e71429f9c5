// Signing in and out, who is signed in, personal tokens.
import { randomBytes } from 'node:crypto'
import { LedgerError } from '../../core/errors/LedgerError'
import type { Answer } from '../../shared/api'
import { transaction } from '../db/pool'
import { clockFixed } from '../http/clock'
import { signedIn, type Actor, type Ctx } from '../http/context'
import { checkPassword } from './password'
import { addFailure, addSession, clearFailures, failuresSince, personByEmail } from './queries'
import { hashToken } from './session'

// Compared against when nobody has that address, so that both answers take as long.
const NOBODY = 'scrypt$16384$AAAAAAAAAAAAAAAAAAAAAA==$AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA='

export async function signIn(ctx: Ctx, { email, password }: { email: string, password: string }): Promise<Answer<'signIn'>> {
  const key = email.toLowerCase()
  const now = Date.now()
  if (await failuresSince(ctx.tx, key, now - 15 * 60_000) >= 8) throw new LedgerError('throttled', 429, 'Too many attempts for this address. Try again in a quarter of an hour.')
  const person = await personByEmail(ctx.tx, key)
  if (!(await checkPassword(password, person?.passwordHash ?? NOBODY)) || !person) {
    // Kept even though this request fails.
    await transaction(tx => addFailure(tx, key, now))
    throw new LedgerError('wrong_sign_in', 401, 'The mail address and the password do not belong together.', [{ path: 'password', message: 'The mail address and the password do not belong together.' }])
  }
  await clearFailures(ctx.tx, key)
  const cookieToken = randomBytes(32).toString('base64url')
  await addSession(ctx.tx, hashToken(cookieToken), person.id, 'cookie', '', 14)
  return { ...whoAmI(ctx, person), cookieToken } as Answer<'signIn'>
}
export function whoAmI(ctx: Ctx, person: Actor): Answer<'session'> {
  const { id, name, email, role, bookable, seesCost, takesMoney } = person
  const { company } = ctx
  return {
    person: { id, name, email, role, bookable, seesCost, takesMoney },
    company: { name: company.name, currency: company.currency, locale: company.locale, timeZone: company.timeZone, demo: company.demoDay !== null, stateLabels: company.stateLabels },
    now: new Date(ctx.now).toISOString(), today: ctx.today, clockFixed: clockFixed(),
  }
}
export async function newToken(ctx: Ctx, label: string): Promise<Answer<'newToken'>> {
  const token = randomBytes(32).toString('base64url')
  await addSession(ctx.tx, hashToken(token), signedIn(ctx).id, 'token', label, 365)
  return { token, expiresAt: new Date(Date.now() + 365 * 86_400_000).toISOString() }
}
