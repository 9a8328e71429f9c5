// What the firm writes with its papers and in reminders, in its own words.
import { MAIL_KINDS, mailFields, usualMail, type MailKind } from '../../core/text/mailWords'
import { fillFields, strangeField } from '../../core/text/fillFields'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { minorToDecimal } from '../../core/money/formatMinor'
import { sayMoney } from '../../core/money/sayMoney'
import { sayDay } from '../../core/time/sayDay'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { queueMail } from '../messages/service'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'
import { getCompany, setWording } from './queries'

export const mailWords = ({ company }: Ctx): Answer<'mailWords'> => ({
  items: MAIL_KINDS.map((kind) => ({
    kind,
    text: company.wording[kind] || usualMail(kind),
    usual: usualMail(kind),
    fields: [...mailFields(kind)],
  })),
})
function checkFields(kind: MailKind, text: string): void {
  const strange = strangeField(text, mailFields(kind))
  if (!strange) return
  const known = mailFields(kind).map((name) => `{${name}}`)
  throw invalid('text', `{${strange}} is not known here. There are: ${known.join(', ')}.`)
}
/** Writes the firm's own words of a kind; nothing, where they are as usual. */
export async function putMailWords(ctx: Ctx, kind: MailKind, text: string): Promise<void> {
  const { wording } = ctx.company
  const from = wording[kind] ?? ''
  if (text === from) return
  ctx.company.wording = { ...wording, [kind]: text }
  await setWording(ctx.tx, ctx.company.wording)
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.mailWordsKept({ kind, changes: { text: { from, to: text } } }),
  })
}
export async function keepMailWords(
  ctx: Ctx,
  { kind, text, shown }: Body<'keepMailWords'>,
): Promise<Answer<'mailWords'>> {
  // Nobody else changes any words meanwhile.
  await lockFirm(ctx.tx)
  const now = { ...ctx, company: (await getCompany(ctx.tx))! }
  const stands = now.company.wording[kind] || usualMail(kind)
  if (shown !== stands)
    throw conflict('stale', 'Someone changed these words in the meantime. Look at them again.', {
      current: mailWords(now),
    })
  checkFields(kind, text)
  await putMailWords(now, kind, text.trim() === usualMail(kind) ? '' : text.trim())
  return mailWords(now)
}
/** What is made up, so that each field can be seen filled. */
function exampleFacts({ company, today }: Ctx, name: string): Record<string, string> {
  const { currency, locale } = company
  const sum = sayMoney({ amount: minorToDecimal(12_000, currency), currency }, locale)
  const day = sayDay(today, locale, 'withYear')
  return {
    ...{ name, title: 'A new pump', number: 'I-1', sum, due: day, until: day },
    ...{ list: `I-1, ${day}: ${sum}`, link: 'https://…', company: company.name },
  }
}
export async function tryMailWords(
  ctx: Ctx,
  { kind, text }: Body<'tryMailWords'>,
): Promise<Answer<'tryMailWords'>> {
  checkFields(kind, text)
  const { email, name } = signedIn(ctx)
  await queueMail(ctx, {
    ...{ kind: 'test', customerId: null, invoiceId: null, to: [email], attach: 'none' },
    subject: `${ctx.company.name}: as a customer would read it`,
    body: fillFields(text, exampleFacts(ctx, name)),
  })
  return { ok: true }
}
