// A way in that whoever runs the server gives: for somebody who lost password, phone and recovery codes, where nobody is left
// who can let them in. Whoever has the machine has everything on it: no more is given away.
import { randomBytes } from 'node:crypto'
import { MINUTE } from '../../core/time/units'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { putDoor } from './doors.queries'
import { accessFacts } from './facts'
import { personByEmail } from './queries'
import { removeSecondStep } from './secondStep.queries'
import { hashToken } from './session'

const LASTS_MS = 30 * MINUTE
const TOKEN_BYTES = 32
/** The token of a way in for whoever has this mail address, or null where nobody has; the second step ends. */
export async function letIn(ctx: Ctx, email: string): Promise<string | null> {
  const person = await personByEmail(ctx.tx, email.toLowerCase())
  if (!person) return null
  const token = randomBytes(TOKEN_BYTES).toString('base64url')
  await removeSecondStep(ctx.tx, person.id)
  await putDoor(ctx.tx, {
    ...{ hash: hashToken(token), kind: 'forgotten', personId: person.id, lastsMs: LASTS_MS },
  })
  await record(
    { ...ctx, actor: { ...person, name: 'Whoever runs the server' } },
    {
      ...{ subject: 'access', id: person.id },
      fact: accessFacts.letIn({ name: person.name }),
    },
  )
  return token
}
