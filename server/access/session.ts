// The sealed cookie, personal tokens, and signatures of machines.
import { createHash, createHmac, timingSafeEqual } from 'node:crypto'
import {
  getCookie,
  getHeader,
  unsealSession,
  useSession,
  type H3Event,
  type SessionConfig,
} from 'h3'
import { LedgerError } from '../../core/errors/LedgerError'
import { inBackground, reading } from '../db/pool'
import type { Actor } from '../http/context'
import { noteSeen, personBySession, type SessionKind } from './queries'
import { config } from '../config'

const SECRET_SIGNS = 32
export function secret(): string {
  const value = config.secret
  if (value.length < SECRET_SIGNS)
    throw new Error(
      `OPEN_LEDGER_SECRET must have ${SECRET_SIGNS} signs or more; npm start makes and keeps one.`,
    )
  return value
}
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex')

/** Over TLS under a name that no other host, and no page without TLS, can set (RFC 6265bis, `__Host-`). */
export const cookieName = (secure = config.cookieSecure): string =>
  secure ? '__Host-open-ledger' : 'open-ledger'
export const SESSION_DAYS = 14
const DAY_SECONDS = 86_400
const cookieConfig = (): SessionConfig => ({
  password: secret(),
  name: cookieName(),
  maxAge: SESSION_DAYS * DAY_SECONDS,
  cookie: { httpOnly: true, sameSite: 'lax', secure: config.cookieSecure, path: '/' },
})
/** The token in the cookie; reading it sets none. */
async function tokenIn(event: H3Event): Promise<string> {
  const sealed = getCookie(event, cookieName())
  if (!sealed) return ''
  const session = await unsealSession(event, cookieConfig(), sealed).catch(() => null)
  const token: unknown = session?.data?.token
  return typeof token === 'string' ? token : ''
}

export interface Asker {
  actor: Actor | null
  /** the hash of the token that asks */
  session: string
  byCookie: boolean
  /** a token that changes nothing */
  readsOnly: boolean
  /** the last event that the asker could have seen */
  lastEvent: number
}
const SEEN_EVERY_MS = 300_000
async function askerBy(token: string, kind: SessionKind): Promise<Asker> {
  const session = hashToken(token)
  const found = token ? await reading((tx) => personBySession(tx, session, kind)) : null
  const byCookie = kind === 'cookie'
  if (!found) return { actor: null, session: '', byCookie, readsOnly: false, lastEvent: 0 }
  const { lastEvent, lastSeenAt, readsOnly, ...actor } = found
  const now = Date.now()
  if (now - Date.parse(lastSeenAt) > SEEN_EVERY_MS)
    void inBackground((tx) => noteSeen(tx, session, now)).catch(() => {})
  return { actor, session, byCookie, readsOnly, lastEvent }
}
export async function actorOf(event: H3Event): Promise<Asker> {
  const bearer = /^Bearer ([\w-]{20,200})$/.exec(getHeader(event, 'Authorization') ?? '')?.[1]
  return bearer ? askerBy(bearer, 'token') : askerBy(await tokenIn(event), 'cookie')
}
/** Whether a session still holds: asked again and again for a stream that stays open. */
export const stillHolds = async (session: string, kind: SessionKind): Promise<boolean> =>
  (await inBackground((tx) => personBySession(tx, session, kind))) !== null

/** What opens a session answers with a token that goes into the cookie and nowhere else; what ends it clears it. */
export async function keepSession(
  event: H3Event,
  does: 'opens' | 'ends',
  result: unknown,
): Promise<unknown> {
  const session = await useSession<{ token?: string }>(event, cookieConfig())
  if (does === 'ends') {
    await session.clear()
    return result
  }
  const { cookieToken, ...answer } = result as { cookieToken: string }
  await session.update({ token: cookieToken })
  return answer
}
const SIGNATURE_SECONDS = 300
/** `t=SECONDS,v=HEX` over "t.body"; older than five minutes is refused, so that a recorded request cannot be sent again. */
export function checkSignature(
  by: 'card' | 'positions' | 'text',
  header: string,
  bytes: Buffer,
): void {
  const { t, v } = Object.fromEntries(
    header.split(',').map((p) => p.split('=') as [string, string]),
  )
  const expected = createHmac('sha256', config.connectionTo(by).secret || secret())
    .update(`${t}.`)
    .update(bytes)
    .digest()
  const given = Buffer.from(v ?? '', 'hex')
  const fits = t && given.length === expected.length && timingSafeEqual(given, expected)
  if (!fits || Math.abs(Date.now() / 1000 - Number(t)) > SIGNATURE_SECONDS)
    throw new LedgerError('bad_signature', 'The signature does not fit.')
}
/**
 * The private link of a paper: derived, so that only its hash is kept. Each turn gives another link;
 * the first one is turn 0.
 */
export const linkToken = (purpose: string, id: string, turn = 0): string =>
  createHmac('sha256', secret())
    .update(turn ? `${purpose}:${id}:${turn}` : `${purpose}:${id}`)
    .digest('base64url')
