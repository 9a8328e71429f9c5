// The words of a work order: title, problem, note; and carrying over what changed at the customer.
import { workFacts } from './facts'
import { changedDetails } from '../../core/customers/changedDetails'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { eachWorkWord, WORK_WORD_NAMES } from '../../core/visits/workWords'
import type { Answer, Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { visibleWorkOrder } from './account'
import { workOrderPaper } from './views'
import { detailsOf } from './details'
import { setDetails, setFollowUp, setWords } from './queries'

/** Takes the customer's details as they are now into the work order; what was billed keeps what it was sent with. */
export async function carryOver(ctx: Ctx, workOrderId: string): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const changed = changedDetails(
    work.details,
    detailsOf(
      (await customerById(ctx.tx, work.customerId))!,
      (await siteById(ctx.tx, work.siteId))!,
    ),
  )
  if (changed.length === 0)
    throw conflict('nothing_changed', 'The details are the same as the customer’s.')
  await setDetails(ctx.tx, workOrderId, {
    ...work.details,
    ...Object.fromEntries(changed.map((d) => [d.detail, d.is])),
  })
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: work.customerId,
    fact: workFacts.carriedOver({
      details: changed.map((d) => d.detail),
      changes: Object.fromEntries(changed.map((d) => [d.detail, { from: d.was, to: d.is }])),
    }),
  })
  return workOrderPaper(ctx, workOrderId)
}
export async function writeWorkOrder(
  ctx: Ctx,
  workOrderId: string,
  body: Body<'writeWorkOrder'>,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const { version, ...values } = body
  if (work.version !== version)
    throw conflict('stale', 'Someone changed this work order in the meantime.', {
      current: await workOrderPaper(ctx, workOrderId),
      yours: values,
    })
  const words = eachWorkWord((word) => values[word] ?? work[word])
  await setWords(ctx.tx, workOrderId, words)
  const changed = WORK_WORD_NAMES.filter((word) => words[word] !== work[word])
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: work.customerId,
    fact: workFacts.changed({
      parts: changed,
      changes: Object.fromEntries(changed.map((k) => [k, { from: work[k], to: words[k] }])),
    }),
  })
  return workOrderPaper(ctx, workOrderId)
}
/** Parked: kept out of sight until its day, in a list that somebody named; an empty name takes it out again. */
export async function park(
  ctx: Ctx,
  id: string,
  body: Body<'followUp'>,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, id, true)
  if (body.on && body.on < ctx.today) throw invalid('on', 'That day has passed.')
  if (!(await setFollowUp(ctx.tx, { ...body, id, on: body.list ? body.on : null })))
    throw conflict('stale', 'Someone changed this work order in the meantime.', {
      current: { version: work.version, followUp: work.followUp },
    })
  await record(ctx, {
    subject: 'work',
    id,
    workOrderId: id,
    customerId: work.customerId,
    fact: body.list
      ? workFacts.parked({ list: body.list, on: body.on ?? null })
      : workFacts.unparked({ list: work.followUp }),
  })
  return workOrderPaper(ctx, id)
}
