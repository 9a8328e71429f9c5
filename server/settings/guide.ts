// What a firm that sets itself up has done, and what is still missing for what.
import { firstSteps, missingFor, TASKS } from '../../core/settings/firstSteps'
import type { Answer } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { queueMail } from '../messages/service'
import { firmFacts } from './guide.queries'

export async function guide(ctx: Ctx): Promise<Answer<'guide'>> {
  const steps = firstSteps(await firmFacts(ctx.tx))
  return {
    steps: steps.map((step) => ({ ...step, unlocks: [...step.unlocks] })),
    tasks: TASKS.map((task) => ({ task, missing: missingFor(steps, task) })),
  }
}
/** A mail to whoever asks: whether ours arrive is seen where it does. */
export async function tryMail(ctx: Ctx): Promise<Answer<'tryMail'>> {
  const { email, name } = signedIn(ctx)
  await queueMail(ctx, {
    ...{ kind: 'test', customerId: null, invoiceId: null, to: [email], attach: 'none' },
    subject: `${ctx.company.name}: mails from Open Ledger arrive`,
    body: `Dear ${name},\n\nthis is the mail that you asked for. Invoices, quotes and reminders will come from the same address.\n`,
  })
  return { ok: true }
}
