// What every service function is handed: the transaction, the clock, who asks, the company, and a source of identifiers.
import { v7 } from 'uuid'
import { LedgerError } from '../../core/errors/LedgerError'
import { localDate } from '../../core/time/zone'
import type { OwnRole } from '../../core/access/ownRoles'
import { mayRole, type Grants, type Permission, type Role } from '../../core/access/permissions'
import { fromSnapshot, inBackground, transaction, type Tx } from '../db/pool'
import { getCompany, type Company } from '../settings/queries'
import { companyNow } from './clock'

export interface Actor {
  id: string
  name: string
  email: string
  /** of the firm's own, the one that it begins as */
  role: Role
  ownRole: OwnRole | null
  bookable: boolean
  seesCost: boolean
  /** a second step is asked of the role, and there is none */
  lacksSecondStep: boolean
  /** to whom the owner gives what, where that is not as usual; what an own role is given is said of the one that it begins as */
  grants: Grants
}
export interface Ctx {
  tx: Tx
  now: number
  today: string
  actor: Actor | null
  ip: string
  company: Company
  id(): string
}
type Who = Pick<Ctx, 'actor' | 'ip'>
/** Whether whoever asks may do it. */
export const may = (ctx: Pick<Ctx, 'actor'>, permission: Permission): boolean =>
  !!ctx.actor && mayRole(ctx.actor.role, permission, ctx.actor.grants)

async function contextOf(who: Who, tx: Tx): Promise<Ctx> {
  const company = await getCompany(tx)
  if (!company) throw new LedgerError('not_set_up', 'The company is not set up yet.')
  const now = companyNow(company)
  return {
    tx,
    now,
    today: localDate(now, company.timeZone),
    actor: who.actor,
    ip: who.ip,
    company,
    id: () => v7({ msecs: now }),
  }
}
/** Work that somebody asked for, in one transaction. */
export const inContext = <T>(who: Who, work: (ctx: Ctx) => Promise<T>): Promise<T> =>
  transaction(async (tx) => work(await contextOf(who, tx)))

/** What is read of everything as it stood at one moment, whatever is written meanwhile. */
export async function atOneMoment<T>(who: Who, read: (ctx: Ctx) => Promise<T>): Promise<T> {
  const answers: T[] = []
  const asked = fromSnapshot(async function* (tx) {
    yield await read(await contextOf(who, tx))
  })
  for await (const answer of asked) answers.push(answer)
  return answers[0]!
}
/** What is written of everything as it stood at one moment, piece by piece, and of any length. */
export const writtenAtOneMoment = <T>(
  who: Who,
  write: (ctx: Ctx) => AsyncIterable<T>,
): AsyncGenerator<T> =>
  fromSnapshot(async function* (tx) {
    yield* write(await contextOf(who, tx))
  })
/** An export of text, in pieces that are worth sending. */
export async function* exported(
  who: Who,
  write: (ctx: Ctx) => AsyncIterable<string>,
): AsyncGenerator<string> {
  let text = ''
  for await (const piece of writtenAtOneMoment(who, write)) {
    text += piece
    if (text.length < WORTH_SENDING) continue
    yield text
    text = ''
  }
  if (text) yield text
}
const WORTH_SENDING = 65_536

const NOBODY: Who = { actor: null, ip: '' }
/** Work that nobody waits for, in one transaction, on connections of its own. */
export const inBackgroundContext = <T>(
  work: (ctx: Ctx) => Promise<T>,
  who: Who = NOBODY,
): Promise<T> => inBackground(async (tx) => work(await contextOf(who, tx)))

/** Who asks, where the route has already made sure that somebody is signed in. */
export function signedIn(ctx: Pick<Ctx, 'actor'>): Actor {
  if (!ctx.actor) throw new LedgerError('not_signed_in', 'Sign in first.')
  return ctx.actor
}
