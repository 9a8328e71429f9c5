// The sealed cookie, personal tokens, and signatures of machines.
import { createHash, createHmac, timingSafeEqual } from 'node:crypto'
import { getHeader, useSession, type H3Event } from 'h3'
import { LedgerError } from '../../core/errors/LedgerError'
import { transaction } from '../db/pool'
import type { Actor } from '../http/context'
import { endSessions, personBySession } from './queries'

export function secret(): string {
  const value = process.env.OPEN_LEDGER_SECRET
  if (!value || value.length < 32) throw new Error('OPEN_LEDGER_SECRET must have 32 signs or more; npm start makes and keeps one.')
  return value
}
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex')
const cookie = (event: H3Event) => useSession<{ token?: string }>(event, { password: secret(), name: 'open-ledger', maxAge: 14 * 86_400, cookie: { httpOnly: true, sameSite: 'lax', secure: process.env.COOKIE_SECURE === '1', path: '/' } })

export async function actorOf(event: H3Event): Promise<{ actor: Actor | null, byCookie: boolean }> {
  const bearer = /^Bearer ([\w-]{20,200})$/.exec(getHeader(event, 'Authorization') ?? '')?.[1]
  if (bearer) return { actor: await transaction(tx => personBySession(tx, hashToken(bearer), 'token')), byCookie: false }
  const token = (await cookie(event)).data.token
  return { actor: token ? await transaction(tx => personBySession(tx, hashToken(token), 'cookie')) : null, byCookie: true }
}
/** Sign-in answers with a token that goes into the cookie and nowhere else; sign-out clears it. */
export async function keepSession(event: H3Event, name: 'signIn' | 'signOut', result: unknown): Promise<unknown> {
  const session = await cookie(event)
  if (name === 'signOut') {
    const { token } = session.data
    // The session ends on the server too: a copied cookie is worth nothing afterwards.
    if (token) await transaction(tx => endSessions(tx, hashToken(token)))
    await session.clear()
    return result
  }
  const { cookieToken, ...answer } = result as { cookieToken: string }
  await session.update({ token: cookieToken })
  return answer
}
/** `t=SECONDS,v=HEX` over "t.body"; older than five minutes is refused, so that a recorded request cannot be sent again. */
export function checkSignature(by: 'CARD' | 'POSITIONS' | 'TEXT', header: string, bytes: Buffer): void {
  const { t, v } = Object.fromEntries(header.split(',').map(p => p.split('=') as [string, string]))
  const expected = createHmac('sha256', process.env[`${by}_SECRET`] ?? secret()).update(`${t}.`).update(bytes).digest()
  const given = Buffer.from(v ?? '', 'hex')
  if (!t || given.length !== expected.length || !timingSafeEqual(given, expected) || Math.abs(Date.now() / 1000 - Number(t)) > 300) throw new LedgerError('bad_signature', 401, 'The signature does not fit.')
}
/** The private link of a paper: derived, so that only its hash is kept. */
export const linkToken = (purpose: string, id: string): string => createHmac('sha256', secret()).update(`${purpose}:${id}`).digest('base64url')
