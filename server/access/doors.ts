// Ways in that end: an invitation, a password that was forgotten. Each opens once, by a link that only its reader has.
import { LedgerError } from '../../core/errors/LedgerError'
import { DAY, MINUTE, SECOND } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { config } from '../config'
import type { Ctx } from '../http/context'
import { countTry, tooOften, type Limit } from '../http/limits'
import { record } from '../http/queries'
import type { Call } from '../http/route'
import type { MessageRow } from '../messages/queries'
import { queueMail } from '../messages/service'
import { closeDoors, doorBy, putDoor, type Door, type DoorKind } from './doors.queries'
import { accessFacts } from './facts'
import { hashPassword } from './password'
import { givePassword } from './people.queries'
import { personByEmail } from './queries'
import { countCode, takeSecondStep } from './secondStep'
import { tellChanged } from './tellChanged'
import { hashToken, linkToken } from './session'
import { checkNewPassword, endAllOf, openSession } from './service'

const LASTS: Readonly<Record<Exclude<DoorKind, 'begin'>, number>> = {
  invited: 7 * DAY,
  forgotten: 30 * MINUTE,
}
interface Reader {
  id: string
  name: string
  email: string
}
/** The way in that a mail of ours leads to: derived when it leaves, so that the outbox holds none. */
const doorToken = (messageId: string): string => linkToken('door', messageId)
export const linkOfDoor = async (_: Ctx, { kind, id }: MessageRow): Promise<string> =>
  kind === 'access' ? `${config.publicUrl}/come-in/${doorToken(id)}` : ''
async function mailDoor(
  ctx: Ctx,
  kind: Exclude<DoorKind, 'begin'>,
  { id, email }: Reader,
  mail: { subject: string; body: string },
): Promise<void> {
  const messageId = await queueMail(ctx, {
    ...{ kind: 'access', customerId: null, invoiceId: null, to: [email], attach: 'none' },
    ...mail,
  })
  const hash = hashToken(doorToken(messageId))
  await putDoor(ctx.tx, { hash, kind, personId: id, lastsMs: LASTS[kind] })
}
/** Who was added comes in by a link, and chooses a password there. */
export async function invite(ctx: Ctx, reader: Reader): Promise<void> {
  const { company, actor } = ctx
  await mailDoor(ctx, 'invited', reader, {
    subject: `${company.name}: you are invited to Open Ledger`,
    body: `Dear ${reader.name},\n\n${actor?.name ?? company.name} invites you to the calls, schedule and papers of ${company.name}. Choose a password here within seven days:\n\n{link}\n\nYou sign in with ${reader.email}.\n`,
  })
  await record(ctx, {
    ...{ subject: 'person', id: reader.id },
    fact: accessFacts.invited({ name: reader.name }),
  })
}
const ASKED: Limit = { free: 3, firstWaitMs: MINUTE, longestWaitMs: 30 * MINUTE, forgetMs: DAY }
const FROM: Limit = { free: 20, firstWaitMs: 5 * SECOND, longestWaitMs: 5 * MINUTE, forgetMs: DAY }
/** Whether somebody has that address is not said: the answer is the same, and so is how often it may be asked. */
export async function forgotPassword(
  ctx: Ctx,
  { email }: Body<'forgotPassword'>,
): Promise<Answer<'forgotPassword'>> {
  const now = Date.now()
  const waits = [
    await countTry(ctx.tx, `forgot from ${ctx.ip}`, FROM, now),
    await countTry(ctx.tx, `forgot ${email.toLowerCase()}`, ASKED, now),
  ]
  if (Math.max(...waits) > 0)
    throw tooOften(
      'A link was asked for several times. Wait a moment, then try again.',
      Math.max(...waits),
    )
  const person = await personByEmail(ctx.tx, email.toLowerCase())
  if (!person) return { ok: true }
  await mailDoor(ctx, 'forgotten', person, {
    subject: `${ctx.company.name}: another password for Open Ledger`,
    body: `Somebody asked for another password for ${person.email}. Choose it here within 30 minutes:\n\n{link}\n\nIf it was not you, there is nothing to do: the password that you have still holds.\n`,
  })
  return { ok: true }
}
const shut = () =>
  new LedgerError('not_found', 'This link has ended, or was used. Ask for another one.')
type PersonDoor = Door & { personId: string; name: string; email: string }
async function doorOf(ctx: Ctx, token: string, lock = false): Promise<PersonDoor> {
  const door = await doorBy(ctx.tx, hashToken(token), lock)
  if (!door?.personId) throw shut()
  return door as PersonDoor
}
/** Whose door it is. */
export async function door(ctx: Ctx, token: string): Promise<Answer<'door'>> {
  const { kind, name, email } = await doorOf(ctx, token)
  return { firm: ctx.company.name, name, email, isNew: kind === 'invited' }
}
/** Through the door once, with a password of one's own; everywhere else this person is signed out. */
export async function comeIn(
  call: Call,
  token: string,
  { password, code }: Body<'comeIn'>,
): Promise<Answer<'comeIn'>> {
  const { email, name, personId: id } = await call.inContext((ctx) => doorOf(ctx, token))
  if (code) await countCode(call, id)
  await checkNewPassword({ email, name }, password, 'password')
  const hash = await hashPassword(password)
  return call.inContext(async (ctx) => {
    const { personId, kind } = await doorOf(ctx, token, true)
    // Who reads somebody's mail has not got their phone.
    await takeSecondStep(ctx, personId, code)
    await closeDoors(ctx.tx, personId)
    await givePassword(ctx.tx, personId, hash)
    await endAllOf(ctx, personId)
    const me = (await personByEmail(ctx.tx, email))!
    await record(
      { ...ctx, actor: me },
      {
        ...{ subject: 'person', id: personId },
        fact: kind === 'invited' ? accessFacts.cameIn() : accessFacts.passwordChanged(),
      },
    )
    if (kind === 'forgotten') await tellChanged(ctx, me, 'Another password was chosen')
    return openSession(ctx, me) as Promise<Answer<'comeIn'>>
  })
}
