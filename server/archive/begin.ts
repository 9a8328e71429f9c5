// A firm that comes from another Open Ledger: its archive is taken in with the code that was printed, and its owner comes
// in with a new password, since an archive holds none.
import { conflict, invalid } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { closeDoors, givePassword } from '../access/index'
import { hashPassword } from '../access/password'
import { personByEmail } from '../access/queries'
import { checkNewPassword, openSession } from '../access/service'
import { customersChanged } from '../customers/matching'
import { record } from '../http/queries'
import type { Call, Input } from '../http/route'
import { checkCode, hasPeople, mayBegin } from '../settings/index'
import { archiveFacts } from './facts'
import { customerIds } from './queries'
import { readArchive, takeIn, type Archived } from './takeIn'

async function takenIn(call: Call, code: string, archived: Archived): Promise<number> {
  return call.inContext(async (ctx) => {
    await mayBegin(ctx, code)
    if (await hasPeople(ctx.tx))
      throw conflict('begun', 'A firm was taken in here already. Load the page again.')
    const rows = await takeIn(ctx.tx, archived)
    const ids = (await customerIds(ctx.tx)).map(({ id }) => id)
    customersChanged(ctx, ids)
    return rows
  })
}
/** Everything of a firm comes in from a file; only then its owner is asked for. */
export async function takeInArchive(
  call: Call,
  { raw }: Pick<Input<'takeInArchive'>, 'raw'>,
): Promise<Answer<'takeInArchive'>> {
  const code = raw.headers['begin-code'] ?? ''
  await checkCode(call, code)
  const archived = await readArchive(await raw.toFile())
  try {
    return { firm: archived.firm, rows: await takenIn(call, code, archived) }
  } finally {
    archived.opened.close()
  }
}
/** The owner of a firm that was taken in chooses a password, and is signed in. */
export async function beginAsOwner(
  call: Call,
  body: Body<'beginAsOwner'>,
): Promise<Answer<'beginAsOwner'>> {
  await checkCode(call, body.code)
  const email = body.email.toLowerCase()
  await checkNewPassword({ name: '', email }, body.password, 'password')
  const hash = await hashPassword(body.password)
  return call.inContext(async (ctx) => {
    await mayBegin(ctx, body.code)
    const person = await personByEmail(ctx.tx, email)
    if (person?.role !== 'owner')
      throw invalid('email', 'No owner of this firm has this mail address.')
    await closeDoors(ctx.tx, null)
    await givePassword(ctx.tx, person.id, hash)
    const now = { ...ctx, actor: person }
    await record(now, {
      ...{ subject: 'settings', id: ctx.id() },
      fact: archiveFacts.takenIn({ firm: ctx.company.name }),
    })
    return openSession(now, person) as Promise<Answer<'beginAsOwner'>>
  })
}
