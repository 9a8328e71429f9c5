// What customers are told by itself about visits, and in which words: kept, put back.
import { invalid } from '../../core/errors/LedgerError'
import { strangeField } from '../../core/text/fillFields'
import type { Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import {
  alike,
  lockFirm,
  putVisitMessages,
  refuseChanged,
  refuseOther,
  undoes,
} from '../settings/index'
import { getCompany } from '../settings/queries'
import { scheduleFacts } from './facts'
import { VISIT_FIELDS } from './messageWords'
import { messagesOf, scheduleSetUp, type SetUp } from './setUpView'

type Messages = SetUp['messages']
function checkWords({ words }: Messages): void {
  for (const [kind, text] of Object.entries(words)) {
    const strange = strangeField(text, VISIT_FIELDS)
    if (strange) throw invalid(`words.${kind}`, `{${strange}} is not known here.`)
  }
}
/** As they are, held until this is done: nobody changes other words meanwhile, which are kept with these. */
async function messagesNow(ctx: Ctx): Promise<Messages> {
  await lockFirm(ctx.tx)
  ctx.company = (await getCompany(ctx.tx))!
  return messagesOf(ctx)
}
export async function keepVisitMessages(
  ctx: Ctx,
  { shown, ...to }: Body<'keepVisitMessages'>,
): Promise<SetUp> {
  checkWords(to)
  const from = await messagesNow(ctx)
  refuseOther('these messages', { now: from, shown })
  if (!alike(from, to)) {
    const { words, ...which } = to
    const wording = {
      ...ctx.company.wording,
      ...Object.fromEntries(Object.entries(words).map(([kind, text]) => [`visit_${kind}`, text])),
    }
    await putVisitMessages(ctx.tx, which, wording)
    const fact = scheduleFacts.messagesChanged({ changes: { messages: { from, to } } })
    await record(ctx, { subject: 'settings', id: ctx.id(), fact })
    Object.assign(ctx.company, { visitMessages: which, wording })
  }
  return scheduleSetUp(ctx)
}
undoes({
  'schedule.messagesChanged': {
    may: 'dispatch.setUp',
    // At first only which were sent was kept, not their words.
    fits: ({ changes }) => Boolean(changes?.messages),
    async back(ctx, { changes }: { changes: { messages: { from: Messages; to: Messages } } }) {
      const shown = await messagesNow(ctx)
      const { from, to } = changes.messages
      refuseChanged(shown, to)
      await keepVisitMessages(ctx, { ...from, shown })
    },
  },
})
