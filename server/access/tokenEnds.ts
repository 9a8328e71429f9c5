// Whoever made a token for a program is told before it ends: a program that stops is noticed late, and by others.
import { DAY, SECOND } from '../../core/time/units'
import { localDate } from '../../core/time/zone'
import { sayDay } from '../../core/time/sayDay'
import type { Tx } from '../db/pool'
import type { Ctx } from '../http/context'
import { doubling, enqueue, type JobKind } from '../jobs/jobs'
import { queueMail } from '../messages/service'
import { tokenWithOwner } from './queries'
import { hashToken } from './session'

const KIND = 'token-ends'
/** So long before its end. */
const TOLD_DAYS = 7

/** What a token is called where its hash must not stand: jobs go into the archive of everything. */
const markOf = (hash: string): string => hashToken(hash)
/** One that ends sooner than that was made for these days. */
export const watchToken = async (tx: Tx, { hash, endsAt }: { hash: string; endsAt: number }) => {
  const token = markOf(hash)
  const runAt = endsAt - TOLD_DAYS * DAY
  if (runAt > Date.now()) await enqueue(tx, { kind: KIND, key: token, payload: { token }, runAt })
}
async function tell(ctx: Ctx, mark: string): Promise<void> {
  const token = await tokenWithOwner(ctx.tx, mark)
  // It was ended by hand, or whoever had it left.
  if (!token) return
  const { name, locale, timeZone } = ctx.company
  const day = sayDay(localDate(Date.parse(token.expiresAt), timeZone), locale, 'withYear')
  await queueMail(ctx, {
    ...{ kind: 'access', customerId: null, invoiceId: null, attach: 'none' as const },
    to: [token.email],
    subject: `${name}: your token “${token.label}” ends on ${day}`,
    body: `Dear ${token.name},\n\nThe token “${token.label}”, by which a program works in your name, ends on ${day}. From then on the program is refused.\n\nWhere it is still needed, make another one under “My sign-in” and give it to the program.\n`,
  })
}
export const tokenEndsJob: JobKind = {
  kind: KIND,
  atOnce: 1,
  limitMs: 10 * SECOND,
  tries: 5,
  waitMs: doubling,
  run:
    async ({ payload }) =>
    (ctx) =>
      tell(ctx, String(payload.token)),
}
