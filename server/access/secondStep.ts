// The second step of signing in: a code of an app or a recovery code, set up by each person, and asked of some roles by the owner.
import { randomBytes } from 'node:crypto'
import { CODE_LENGTH, readCode, sayCode } from '../../core/access/beginCode'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { MINUTE, SECOND } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { countTry, forgiveTries, tooOften, type Limit } from '../http/limits'
import { record } from '../http/queries'
import type { Call } from '../http/route'
import { accessFacts } from './facts'
import { tellChanged } from './tellChanged'
import { seal, unseal } from './sealed'
import {
  beginSecondStep,
  confirmSecondStep,
  putRecoveryCodes,
  putSecondStepRoles,
  recoveryCodesLeft,
  removeSecondStep,
  secondStepOf,
  secondStepRoles,
  usePeriod,
  useRecoveryCode,
} from './secondStep.queries'
import { hashToken } from './session'
import { addressFor, newSecret, periodOf } from './timeCode'

const SEALED_FOR = 'second step'
const RECOVERY_CODES = 10
const IS_APP_CODE = /^\d{6}$/
/** Each person's apart: their identifier is the salt. */
const codeHash = (personId: string, typed: string): string =>
  hashToken(`recovery ${personId} ${readCode(typed)}`)

/** Null where it was sealed with another secret of the app, as after a restore: recovery codes open all the same. */
function opened(sealed: string): string | null {
  try {
    return unseal(sealed, SEALED_FOR)
  } catch {
    return null
  }
}
/** A code of the app that was not taken before; each is taken once. */
async function takesAppCode(ctx: Ctx, personId: string, code: string): Promise<boolean> {
  const step = await secondStepOf(ctx.tx, personId)
  if (!step) return false
  const secret = opened(step.secret)
  // By the wall's clock: a phone knows nothing of a demo's.
  const period = secret && periodOf(secret, code, Date.now())
  if (!period || period <= step.lastStep) return false
  await usePeriod(ctx.tx, personId, period)
  return true
}
async function takes(ctx: Ctx, personId: string, typed: string): Promise<boolean> {
  const code = typed.replace(/[\s-]/g, '')
  if (IS_APP_CODE.test(code)) return takesAppCode(ctx, personId, code)
  return useRecoveryCode(ctx.tx, personId, codeHash(personId, code))
}
const wrongCode = () =>
  invalid('code', 'This code is wrong, was used, or its time is over. Write the one of now.')
/**
 * Whoever has a second step takes it.
 * @throws `invalid` at `code` where none was typed, or it is wrong
 */
export async function takeSecondStep(ctx: Ctx, personId: string, code: string): Promise<void> {
  const step = await secondStepOf(ctx.tx, personId)
  if (!step?.confirmedAt) return
  if (!code.trim()) throw invalid('code', 'Write the code of your app, or a recovery code.')
  if (!(await takes(ctx, personId, code))) throw wrongCode()
}
export async function mySecondStep(ctx: Ctx): Promise<Answer<'mySecondStep'>> {
  const { id, role } = signedIn(ctx)
  const step = await secondStepOf(ctx.tx, id)
  return {
    on: Boolean(step?.confirmedAt),
    asked: (await secondStepRoles(ctx.tx)).includes(role),
    codesLeft: await recoveryCodesLeft(ctx.tx, id),
  }
}
/** Another secret, shown once; it holds when a code of it was typed. */
export async function secondStepSecret(ctx: Ctx): Promise<Answer<'secondStepSecret'>> {
  const { id, email } = signedIn(ctx)
  const step = await secondStepOf(ctx.tx, id)
  if (step?.confirmedAt)
    throw conflict('not_now', 'A second step is set up already. End it before you begin anew.')
  const secret = newSecret()
  await beginSecondStep(ctx.tx, id, seal(secret, SEALED_FOR))
  return { secret, address: addressFor(secret, `Open Ledger: ${ctx.company.name}`, email) }
}
const about = (ctx: Ctx, id: string, fact: ReturnType<typeof accessFacts.secondStepSet>) =>
  record(ctx, { subject: 'person', id, fact })
/** It holds from now on; the recovery codes are shown once. */
export async function setSecondStep(
  ctx: Ctx,
  { code }: Body<'setSecondStep'>,
): Promise<Answer<'setSecondStep'>> {
  const { id } = signedIn(ctx)
  const step = await secondStepOf(ctx.tx, id)
  if (!step || step.confirmedAt)
    throw conflict('not_now', 'Nothing waits to be set up here. Begin anew.')
  if (!(await takesAppCode(ctx, id, code.replace(/\s/g, '')))) throw wrongCode()
  await confirmSecondStep(ctx.tx, id, Date.now())
  const codes = Array.from({ length: RECOVERY_CODES }, () => sayCode(randomBytes(CODE_LENGTH)))
  await putRecoveryCodes(
    ctx.tx,
    id,
    codes.map((one) => codeHash(id, one)),
  )
  await about(ctx, id, accessFacts.secondStepSet())
  await tellChanged(ctx, signedIn(ctx), 'A second step was set up')
  return { codes }
}
const TRIES: Limit = {
  free: 5,
  firstWaitMs: 2 * SECOND,
  longestWaitMs: 15 * MINUTE,
  forgetMs: 30 * MINUTE,
}
/** Counts a try, whatever becomes of it: codes are short. */
export const countCode = (call: Call, personId: string): Promise<void> =>
  call.inContext(async (ctx) => {
    const wait = await countTry(ctx.tx, keyOf(personId), TRIES, Date.now())
    if (wait > 0) throw tooOften('Too many attempts. Wait a moment, then try again.', wait)
  })
const keyOf = (personId: string): string => `second step ${personId}`
/** Ends one's own; a code of it is asked for, so that nobody does it at a screen that was left open. */
export async function endMySecondStep(
  call: Call,
  { code }: Body<'endMySecondStep'>,
): Promise<Answer<'mySecondStep'>> {
  const { id } = signedIn(call)
  await countCode(call, id)
  return call.inContext(async (ctx) => {
    await takeSecondStep(ctx, id, code)
    await removeSecondStep(ctx.tx, id)
    await forgiveTries(ctx.tx, keyOf(id))
    await about(ctx, id, accessFacts.secondStepEnded())
    await tellChanged(ctx, signedIn(ctx), 'The second step was ended')
    return mySecondStep(ctx)
  })
}
export const askedRoles = async (ctx: Ctx): Promise<Answer<'secondStepRoles'>> => ({
  roles: await secondStepRoles(ctx.tx),
})
/** From now on these roles have a second step: who has none is asked to set one up before anything else. */
export async function keepSecondStepRoles(
  ctx: Ctx,
  { roles }: Body<'keepSecondStepRoles'>,
): Promise<Answer<'secondStepRoles'>> {
  const was = await secondStepRoles(ctx.tx, true)
  await putSecondStepRoles(ctx.tx, roles)
  const changes = { roles: { from: was, to: roles } }
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: accessFacts.secondStepAsked({ changes }),
  })
  return { roles }
}
