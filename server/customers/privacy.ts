// A person's data: all of it handed out, or taken out where papers do not have to stay.
import { customerFacts } from './facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { Raw } from '../http/route'
import { record } from '../http/queries'
import { agreementsOf } from '../agreements/queries'
import { customersChanged } from './matching'
import { callsOf, takeOutPerson } from './merge.queries'
import { customerById, updateRow } from './queries'
import { openWorkOf } from './history.queries'
import { owedBy } from './owed.queries'
import { customerPaper } from './views'

export async function personData(ctx: Ctx, id: string): Promise<Raw> {
  const paper = await customerPaper(ctx, id)
  await record(ctx, {
    subject: 'customer',
    id,
    customerId: id,
    fact: customerFacts.handedOut(),
  })
  return new Raw(
    'application/json',
    JSON.stringify(
      {
        about: paper.name,
        at: new Date(ctx.now).toISOString(),
        customer: paper,
        calls: await callsOf(ctx.tx, id),
      },
      null,
      2,
    ),
    'customer-data.json',
  )
}
/** Refused while something is open between the firm and the person: money or work. */
export async function erasePerson(
  ctx: Ctx,
  id: string,
  body: Body<'erase'>,
): Promise<Answer<'erase'>> {
  const c = await customerById(ctx.tx, id, true)
  if (!c || c.erasedAt) throw notFound('customer')
  if (c.version !== body.version)
    throw conflict('stale', 'Someone changed this customer in the meantime.', {
      current: await customerPaper(ctx, id),
    })
  if (body.name.trim() !== c.name) throw invalid('name', 'This is not the customer’s name.')
  if (c.mergedInto)
    throw conflict(
      'merged_already',
      'This customer was merged into another one; take it apart first.',
    )
  const open = await openWorkOf(ctx.tx, [id])
  if (open.length)
    throw conflict('work_open', `${open[0]!.number} is still open. Finish or cancel it first.`)
  const [debt = { owed: 0, credits: 0 }] = await owedBy(ctx.tx, [id], ctx.today)
  if (debt.owed + debt.credits !== 0)
    throw conflict('money_open', 'Something is still owed. It has to be paid or written off first.')
  if (debt.credits !== 0)
    throw conflict(
      'credit_open',
      'This customer has a credit. Pay it back, or apply it, before you take them out.',
    )
  const running = (await agreementsOf(ctx.tx, id, ctx.today)).find((a) => a.endsOn >= ctx.today)
  if (running)
    throw conflict(
      'agreement_open',
      `The care agreement ${running.plan} runs until ${running.endsOn}. End it first.`,
    )
  await takeOutPerson(ctx.tx, id)
  await updateRow(ctx.tx, 'customers', c, {
    erasedAt: new Date(ctx.now).toISOString().replace('T', ' ').replace('Z', ''),
  })
  await record(ctx, {
    subject: 'customer',
    id,
    customerId: id,
    fact: customerFacts.erased(),
  })
  customersChanged(ctx, [id])
  return { ok: true }
}
