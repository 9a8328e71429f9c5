// Whoever's way in was changed is told by mail: it may have been somebody else.
import type { Ctx } from '../http/context'
import { queueMail } from '../messages/service'

export async function tellChanged(
  ctx: Ctx,
  { name, email }: { name: string; email: string },
  what: string,
): Promise<void> {
  await queueMail(ctx, {
    ...{ kind: 'access', customerId: null, invoiceId: null, to: [email], attach: 'none' },
    subject: `${ctx.company.name}: ${what.toLowerCase()}`,
    body: `Dear ${name},\n\n${what} for ${email}, from ${ctx.ip}.\n\nIf it was not you, ask for another password at the sign-in, and tell the owner.\n`,
  })
}
