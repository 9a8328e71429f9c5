// Signing in and out, who is signed in, passwords, sessions and personal tokens.
import { phraseLists } from '../../core/settings/phrases'
import { workKinds } from '../../core/visits/workKinds'
import { accessFacts } from './facts'
import { permissionsOf } from '../../core/access/permissions'
import { randomBytes } from 'node:crypto'
import { conflict, invalid, LedgerError, notFound } from '../../core/errors/LedgerError'
import { DAY, HOUR, MINUTE, SECOND } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { emit } from '../events/events'
import { clockFixed } from '../http/clock'
import { signedIn, type Actor, type Ctx } from '../http/context'
import { countTry, forgiveTries, tooOften, triesOf, type Limit } from '../http/limits'
import { record } from '../http/queries'
import type { Call } from '../http/route'
import { queueMail } from '../messages/service'
import { isCommon } from './commonPasswords'
import { checkPassword, hashPassword } from './password'
import {
  addSession,
  endSession,
  knownFrom,
  personByEmail,
  passwordOf,
  sessionsOf,
  setPassword,
} from './queries'
import { takeSecondStep } from './secondStep'
import { tellChanged } from './tellChanged'
import { hashToken, SESSION_DAYS } from './session'
import { watchToken } from './tokenEnds'

const MOST_SHOWN = 200

// Compared against when nobody has that address, so that both answers take as long.
const NOBODY = 'scrypt$16384$AAAAAAAAAAAAAAAAAAAAAA==$AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA='

/** One person from one address: a few mistakes are free, then each one costs twice the wait of the last. */
const BY_BOTH: Limit = {
  free: 5,
  firstWaitMs: 2 * SECOND,
  longestWaitMs: 15 * MINUTE,
  forgetMs: 30 * MINUTE,
}
/** All that one address tries; a firm behind one address signs in together in the morning. */
const BY_SOURCE: Limit = {
  free: 40,
  firstWaitMs: SECOND,
  longestWaitMs: 5 * MINUTE,
  forgetMs: 30 * MINUTE,
}
/** One account, tried from many addresses that nobody ever signed in from. Whoever did is not held up by it. */
const BY_ACCOUNT: Limit = {
  free: 60,
  firstWaitMs: 5 * SECOND,
  longestWaitMs: 2 * MINUTE,
  forgetMs: HOUR,
}
const TOLD_AFTER = 10
const TOLD: Limit = { free: 1, firstWaitMs: DAY, longestWaitMs: DAY, forgetMs: DAY }

interface Keys {
  both: string
  source: string
  account: string
  told: string
}
const keysOf = (ip: string, email: string): Keys => ({
  both: `sign-in ${ip} ${email}`,
  source: `sign-in from ${ip}`,
  account: `sign-in as ${email}`,
  told: `sign-in told ${email}`,
})
const HELD_UP = 'Too many attempts. Wait a moment, then try again.'

/** Counts a try before its hash is worked out; refuses the one that comes too early. */
async function countSignIn(
  ctx: Ctx,
  email: string,
): Promise<(Actor & { passwordHash: string }) | null> {
  const now = Date.now()
  const keys = keysOf(ctx.ip, email)
  const person = await personByEmail(ctx.tx, email)
  // In one order, so that two tries never wait for each other.
  const known = person ? await knownFrom(ctx.tx, person.id, ctx.ip) : false
  const waits = [
    await countTry(ctx.tx, keys.source, BY_SOURCE, now),
    await countTry(ctx.tx, keys.both, BY_BOTH, now),
    known ? 0 : await countTry(ctx.tx, keys.account, BY_ACCOUNT, now),
  ]
  const wait = Math.max(...waits)
  if (wait > 0) throw tooOften(HELD_UP, wait)
  return person
}
/** A wrong password or code of somebody who is here stands in the trail of access. */
async function noteRefused(
  ctx: Ctx,
  {
    person,
    email,
    why,
  }: { person: Actor | null; email: string; why: 'wrong password' | 'wrong code' },
): Promise<void> {
  if (why === 'wrong password') await tellOfTries(ctx, person, email)
  if (!person) return
  const fact = accessFacts.refused({ from: ctx.ip, why })
  await record({ ...ctx, actor: person }, { subject: 'access', id: person.id, fact })
}
/** Says to a person, once a day, that somebody tries their door. */
async function tellOfTries(ctx: Ctx, person: Actor | null, email: string): Promise<void> {
  if (!person) return
  const now = Date.now()
  const keys = keysOf(ctx.ip, email)
  const tries = Math.max(
    await triesOf(ctx.tx, keys.both, BY_BOTH, now),
    await triesOf(ctx.tx, keys.account, BY_ACCOUNT, now),
  )
  if (tries < TOLD_AFTER || (await countTry(ctx.tx, keys.told, TOLD, now)) > 0) return
  await queueMail(ctx, {
    kind: 'access',
    customerId: null,
    invoiceId: null,
    to: [person.email],
    attach: 'none',
    subject: `${ctx.company.name}: wrong passwords for your account`,
    body: `Somebody typed a wrong password for ${person.email} ${tries} times.\n\nIf it was you, there is nothing to do. If not, sign in, open “My sign-in” and choose another password; there you also see where you are signed in.\n`,
  })
}

const wrongSignIn = () => {
  const message = 'The mail address and the password do not belong together.'
  return new LedgerError('wrong_sign_in', message, { errors: [{ path: 'password', message }] })
}
export async function signIn(
  call: Call,
  { email, password, code }: Body<'signIn'>,
): Promise<Answer<'signIn'>> {
  const key = email.toLowerCase()
  const person = await call.inContext((ctx) => countSignIn(ctx, key))
  // Between two transactions: a hash takes long, and nobody waits for its connection meanwhile.
  const fits = await checkPassword(password, person?.passwordHash || NOBODY)
  if (!fits || !person) {
    await call.inContext((ctx) => noteRefused(ctx, { person, email: key, why: 'wrong password' }))
    throw wrongSignIn()
  }
  const comeIn = async (ctx: Ctx) => {
    // The password may have been changed while the hash was worked out: every session that it opened ends with it.
    if ((await passwordOf(ctx.tx, person.id, true))?.passwordHash !== person.passwordHash)
      throw wrongSignIn()
    await takeSecondStep(ctx, person.id, code)
    const keys = keysOf(ctx.ip, key)
    await forgiveTries(ctx.tx, keys.source)
    await forgiveTries(ctx.tx, keys.both)
    return openSession(ctx, person)
  }
  try {
    return await call.inContext(comeIn)
  } catch (error) {
    // What was refused is undone; that somebody knew the password stands in the trail all the same.
    if (code && error instanceof LedgerError && error.errors.some(({ path }) => path === 'code'))
      await call.inContext((ctx) => noteRefused(ctx, { person, email: key, why: 'wrong code' }))
    throw error
  }
}
/** Somebody comes in: whoever answers with this has the browser keep the session. */
export async function openSession(ctx: Ctx, person: Actor): Promise<Answer<'signIn'>> {
  const cookieToken = randomBytes(32).toString('base64url')
  await addSession(ctx.tx, {
    ...{ hash: hashToken(cookieToken), personId: person.id, kind: 'cookie', label: '' },
    ...{ ip: ctx.ip, days: SESSION_DAYS },
  })
  await record(
    { ...ctx, actor: person },
    { subject: 'access', id: person.id, fact: accessFacts.signedIn({ from: ctx.ip }) },
  )
  return { ...whoAmI(ctx, person), cookieToken } as Answer<'signIn'>
}
export function whoAmI(ctx: Ctx, person: Actor): Answer<'session'> {
  const { id, name, email, role, ownRole, bookable, seesCost, lacksSecondStep, grants } = person
  const { company } = ctx
  return {
    person: {
      ...{ id, name, email, role, bookable, seesCost, may: permissionsOf(role, grants) },
      ...{ lacksSecondStep, roleName: ownRole?.name ?? role },
    },
    company: {
      name: company.name,
      currency: company.currency,
      locale: company.locale,
      timeZone: company.timeZone,
      demo: company.demoDay !== null,
      stateLabels: company.stateLabels,
      ownRoles: company.ownRoles,
      workKinds: workKinds(company.workKinds),
      phrases: phraseLists(company.phrases),
    },
    now: new Date(ctx.now).toISOString(),
    today: ctx.today,
    clockFixed: clockFixed(),
    demoClock: !clockFixed() && company.clockOffsetMs !== 0,
  }
}
/** Ends a session or token, and whatever stream it holds open. */
async function end(ctx: Ctx, session: string, personId = signedIn(ctx).id): Promise<boolean> {
  const ended = await endSession(ctx.tx, session, personId)
  if (ended)
    emit(ctx.tx, { topic: 'session', subject: 'session', subjectId: session, workOrderId: null })
  return ended
}
/** Signs out whatever asks: the cookie’s session, or the token. */
export const signOut = (call: Call): Promise<Answer<'signOut'>> =>
  call.inContext(async (ctx) => {
    await end(ctx, call.session)
    return { ok: true }
  })
export async function newToken(
  ctx: Ctx,
  { label, days, readsOnly }: Body<'newToken'>,
): Promise<Answer<'newToken'>> {
  const me = signedIn(ctx)
  const token = randomBytes(32).toString('base64url')
  const [hash, endsAt] = [hashToken(token), Date.now() + days * DAY]
  await addSession(ctx.tx, {
    hash,
    personId: me.id,
    kind: 'token',
    label,
    ip: ctx.ip,
    ...{ days, readsOnly },
  })
  await record(ctx, { subject: 'person', id: me.id, fact: accessFacts.tokenMade({ label }) })
  await watchToken(ctx.tx, { hash, endsAt })
  return { token, expiresAt: new Date(endsAt).toISOString() }
}
export async function mySessions(call: Call): Promise<Answer<'mySessions'>> {
  return call.inContext(async (ctx) => {
    const rows = (await sessionsOf(ctx.tx, signedIn(ctx).id)).slice(0, MOST_SHOWN)
    return {
      items: rows.map(({ ip, ...r }) => ({ ...r, from: ip, current: r.id === call.session })),
    }
  })
}
export async function endMySession(ctx: Ctx, session: string): Promise<Answer<'endMySession'>> {
  if (!(await end(ctx, session))) throw notFound('session or token')
  await record(ctx, {
    subject: 'person',
    id: signedIn(ctx).id,
    fact: accessFacts.sessionEnded(),
  })
  return { ok: true }
}
/** Signs out all other browsers. A token is a program's: it is ended for itself. */
async function endOthers(ctx: Ctx, kept: string): Promise<number> {
  const others = (await sessionsOf(ctx.tx, signedIn(ctx).id)).filter(
    (s) => s.id !== kept && s.kind === 'cookie',
  )
  for (const session of others) await end(ctx, session.id)
  return others.length
}
/** Signs somebody out everywhere; programs that work in their name go on unless they are ended as well. */
export async function endAllOf(ctx: Ctx, personId: string, tokens = false): Promise<void> {
  for (const session of await sessionsOf(ctx.tx, personId))
    if (tokens || session.kind === 'cookie') await end(ctx, session.id, personId)
}
export const endOtherSessions = (call: Call): Promise<Answer<'endOtherSessions'>> =>
  call.once(async (ctx) => {
    const ended = await endOthers(ctx, call.session)
    await record(ctx, {
      subject: 'person',
      id: signedIn(ctx).id,
      fact: accessFacts.othersSignedOut({ count: ended }),
    })
    return { ended }
  })

const [SHORTEST, LONGEST] = [12, 128]
/** @throws `invalid` at the field that the password was typed into */
export async function checkNewPassword(
  person: Pick<Actor, 'name' | 'email'>,
  next: string,
  field: string,
): Promise<void> {
  if (next.length > LONGEST) throw invalid(field, `A password has ${LONGEST} characters at most.`)
  if (next.replace(/ {2,}/g, ' ').length < SHORTEST)
    throw invalid(field, `A password has ${SHORTEST} characters or more.`)
  const known = [
    person.email,
    person.email.split('@')[0]!,
    person.name,
    'open-ledger',
    'open ledger',
  ]
  if (known.some((word) => word.toLowerCase() === next.toLowerCase()))
    throw invalid(field, 'This is easily guessed. Choose another.')
  if (await isCommon(next))
    throw invalid(field, 'Many people have this password, and it is tried first. Choose another.')
}
/** Another password: everywhere else somebody signed in as this person is signed out. Tokens stay, and are listed. */
export async function changePassword(
  call: Call,
  body: Body<'changePassword'>,
): Promise<Answer<'changePassword'>> {
  const me = signedIn(call)
  const key = `password ${me.id}`
  const person = await call.inContext(async (ctx) => {
    const wait = await countTry(ctx.tx, key, BY_BOTH, Date.now())
    if (wait > 0) throw tooOften(HELD_UP, wait)
    return (await passwordOf(ctx.tx, me.id))!
  })
  if (!(await checkPassword(body.current, person.passwordHash)))
    throw invalid('current', 'This is not your password.')
  if (body.next === body.current) throw invalid('next', 'This is the password that you have now.')
  await checkNewPassword(me, body.next, 'next')
  const hash = await hashPassword(body.next)
  return call.inContext(async (ctx) => {
    if (!(await setPassword(ctx.tx, me.id, hash, person.passwordHash)))
      throw conflict('stale', 'Your password was changed elsewhere in the meantime.')
    await forgiveTries(ctx.tx, key)
    const ended = await endOthers(ctx, call.session)
    await record(ctx, { subject: 'person', id: me.id, fact: accessFacts.passwordChanged() })
    await tellChanged(ctx, me, 'Another password was chosen')
    return { ended }
  })
}
