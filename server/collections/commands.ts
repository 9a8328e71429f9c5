// Acts about what is unpaid: reminded, noted.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { decimalToMinor } from '../../core/money/formatMinor'
import type { Answer, Body } from '../../shared/api'
import { customerById, type CustomerRow } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { addressLines } from '../../core/documents/letterhead'
import { keepLetter, queueMail } from '../messages/service'
import { insertNote } from './queries'
import { collectionFacts } from './facts'
import { owing } from './views'

type Reminder = Body<'remind'>
/** What is asked for, as it is now; refused where it is not what was looked at, or nobody could be reached so. */
async function preparedFor(ctx: Ctx, c: CustomerRow, body: Reminder): Promise<Answer<'owing'>> {
  if (!body.letter && body.to.length === 0)
    throw invalid('to', 'Write the address that it goes to.')
  if (!body.letter && c.mailConsent === 'no')
    throw conflict(
      'opted_out',
      'This customer asked not to be written to by mail. Ring them, or print a letter.',
    )
  if (body.letter && !c.line1)
    throw invalid('letter', 'There is no address to post it to. Write it on the customer’s page.')
  const prepared = await owing(ctx, c.id)
  const { owed, invoices, reminder } = prepared
  if (invoices.length === 0) throw invalid('to', 'Nothing is open for this customer.')
  if (body.shownOwed && body.shownOwed !== owed.amount)
    throw conflict(
      'owed_changed',
      'What this customer owes changed since you looked. Look at it again before you remind them.',
      { shown: body.shownOwed, owed },
    )
  if (body.step && body.step !== reminder.step)
    throw conflict('stale', `Somebody sent reminder ${body.step} in the meantime.`, {
      shown: body.step,
      step: reminder.step,
    })
  return prepared
}
/** By mail, or as a letter that is kept to be printed; answers what was written. */
function write(ctx: Ctx, c: CustomerRow, body: Reminder, prepared: Answer<'owing'>) {
  const { subject, body: words, letter } = prepared.reminder
  const said = {
    ...{ kind: 'reminder', customerId: c.id, invoiceId: prepared.invoices[0]!.id },
    subject: body.subject || subject,
    body: body.body || (body.letter ? letter : words),
  }
  return body.letter
    ? keepLetter(ctx, { ...said, to: [c.name, ...addressLines(c)] })
    : queueMail(ctx, { ...said, to: body.to, attach: 'none' })
}
export async function remind(ctx: Ctx, id: string, body: Reminder): Promise<Answer<'remind'>> {
  // Of two windows that send at once the second looks at what the first has sent.
  const c = await customerById(ctx.tx, id, true)
  if (!c) throw notFound('customer')
  const prepared = await preparedFor(ctx, c, body)
  const { step } = prepared.reminder
  const messageId = await write(ctx, c, body, prepared)
  const addresses = body.to.length === 1 ? 'one address' : `${body.to.length} addresses`
  await insertNote(ctx.tx, {
    ...{ id: body.id, customerId: id, kind: 'reminder', amount: null, onDate: null },
    text: `number ${step}, ${body.letter ? 'by letter' : `to ${addresses}`}`,
    ...{ by: signedIn(ctx).id, at: ctx.now, on: ctx.today },
  })
  const fact = collectionFacts.reminded({ step })
  await record(ctx, { subject: 'collection', id, customerId: id, fact })
  return { messageId }
}
export async function noteCollection(
  ctx: Ctx,
  id: string,
  body: Body<'collectionNote'>,
): Promise<Answer<'collectionNote'>> {
  if (!(await customerById(ctx.tx, id))) throw notFound('customer')
  let amount: number | null = null
  if (body.kind === 'promise') {
    if (!body.amount) throw invalid('amount', 'Write the amount that was promised.')
    if (!body.onDate) throw invalid('onDate', 'Choose the day that was promised.')
    if (body.onDate < ctx.today) throw invalid('onDate', 'That day has passed already.')
    amount = decimalToMinor(body.amount, ctx.company.currency)
    if (amount <= 0) throw invalid('amount', 'A promise is of more than nothing.')
  }
  if ((body.kind === 'dispute' || body.kind === 'note') && !body.text)
    throw invalid('text', 'Write down what was said.')
  await insertNote(ctx.tx, {
    id: body.id,
    customerId: id,
    kind: body.kind,
    amount,
    onDate: body.kind === 'promise' ? body.onDate : null,
    text: body.text,
    by: signedIn(ctx).id,
    at: ctx.now,
    on: ctx.today,
  })
  await record(ctx, {
    subject: 'collection',
    id,
    customerId: id,
    fact: collectionFacts.noted({
      kind: body.kind,
      text: body.text,
      amount: body.amount,
      currency: ctx.company.currency,
      onDate: body.onDate,
    }),
  })
  return { ok: true }
}
