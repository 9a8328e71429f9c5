// The words of a work order: title, problem, note; and carrying over what changed at the customer.
import { checkWorkKind, kindsOf } from '../settings/index'
import { workFacts } from './facts'
import { changedDetails } from '../../core/customers/changedDetails'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { formatPhone } from '../../core/text/phone'
import { isFreeKind, sayWorkKind } from '../../core/visits/workKinds'
import { eachWorkWord, WORK_WORD_NAMES } from '../../core/visits/workWords'
import type { Answer, Body } from '../../shared/api'
import { customerById } from '../customers/queries'
import { siteById } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { visibleWorkOrder } from './account'
import { workOrderPaper } from './views'
import { detailsOf } from './details'
import { setDetails, setFollowUp, setSaid, type WorkOrderRow, type WorkSaid } from './queries'

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
const SAID = [...WORK_WORD_NAMES, 'kind', 'contact', 'otherContacts'] as const
const withRole = ({ name, phone, role = '' }: WorkSaid['contact']) => ({ name, phone, role })
const isAlike = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
type Values = Omit<Body<'writeWorkOrder'>, 'version'>
/** What a work order says once some of it is changed; numbers as the country writes them. */
function saidAnew({ company }: Ctx, work: WorkOrderRow, values: Values): WorkSaid {
  const inFull = (who: WorkSaid['contact']) => ({
    ...withRole(who),
    phone: formatPhone(who.phone, company.country),
  })
  const { kind = work.kind, contact = work.contact, otherContacts = work.otherContacts } = values
  return {
    ...eachWorkWord((word) => values[word] ?? work[word]),
    kind,
    // Who stays is not written anew.
    contact: contact === work.contact ? withRole(contact) : inFull(contact),
    otherContacts: otherContacts.filter(({ name, phone }) => name || phone).map(inFull),
  }
}
/** Work that comes again without charge is of its kind for good, and nothing else becomes it. */
function refuseKind(work: WorkOrderRow, kind: string): void {
  if (kind !== work.kind && isFreeKind(work.kind))
    throw invalid('kind', `A ${sayWorkKind(work.kind)} stays one: its cost counts elsewhere.`)
}
/** Changes what a work order says and who is spoken to about it; what is not named stays as it is. */
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
  const said = saidAnew(ctx, work, values)
  refuseKind(work, said.kind)
  checkWorkKind(ctx, said.kind, work.kind)
  const was: WorkSaid = {
    ...work,
    contact: withRole(work.contact),
    otherContacts: work.otherContacts.map(withRole),
  }
  /** A kind is called otherwise one day; the history says what it was called then. */
  const inWords = (all: WorkSaid, part: (typeof SAID)[number]) =>
    part === 'kind' ? sayWorkKind(all.kind, kindsOf(ctx)) : all[part]
  const parts = SAID.filter((part) => !isAlike(said[part], was[part]))
  await setSaid(ctx.tx, workOrderId, said)
  await record(ctx, {
    subject: 'work',
    id: workOrderId,
    workOrderId,
    customerId: work.customerId,
    fact: workFacts.changed({
      parts,
      changes: Object.fromEntries(
        parts.map((k) => [k, { from: inWords(was, k), to: inWords(said, k) }]),
      ),
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
  const { list, reason, on } = body.list ? body : { list: '', reason: '', on: null }
  if (!(await setFollowUp(ctx.tx, { version: body.version, id, list, reason, on })))
    throw conflict('stale', 'Someone changed this work order in the meantime.', {
      current: { version: work.version, followUp: work.followUp },
    })
  await record(ctx, {
    subject: 'work',
    id,
    workOrderId: id,
    customerId: work.customerId,
    fact: list
      ? workFacts.parked({ list, reason, on: on ?? null })
      : workFacts.unparked({ list: work.followUp }),
  })
  return workOrderPaper(ctx, id)
}
