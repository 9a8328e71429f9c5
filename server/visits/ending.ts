// How a work order ends without a bill: closed with a reason, or cancelled with its visits; and how it goes on after all.
import { conflict } from '../../core/errors/LedgerError'
import type { VisitWarning } from '../../core/dispatch/visitWarnings'
import { isUnderWay } from '../../core/visits/visitLifecycle'
import type { Answer, Body } from '../../shared/api'
import { crewIds, boardVisit } from '../dispatch/board.queries'
import { inviteAgain } from '../dispatch/invitations'
import { checkPlacement } from '../dispatch/placing'
import type { Ctx } from '../http/context'
import type { Fact } from '../http/facts'
import { record } from '../http/queries'
import { letBeAboutVisit } from '../messages/queries'
import { accountOf, refreshWorkOrder, visibleWorkOrder } from './account'
import { workFacts } from './facts'
import { linesOf } from './lines.queries'
import { addExplained, setEnd, type WorkOrderRow } from './queries'
import { uncoveredOf } from './uncovered'
import { workOrderPaper } from './views'
import {
  moveVisit,
  setCancelledWithWork,
  setTold,
  setVisitState,
  visitsOfWork,
  type VisitRow,
} from './visits.queries'

type Paper = Answer<'workOrder'>
async function ended(ctx: Ctx, work: WorkOrderRow, fact: Fact): Promise<Paper> {
  const { id, customerId } = work
  await record(ctx, { subject: 'work', id, workOrderId: id, customerId, fact })
  await refreshWorkOrder(ctx, id)
  return workOrderPaper(ctx, id)
}
/** The work order as it may end: nobody is there, and nothing that was done waits for its bill. */
async function mayEnd(ctx: Ctx, id: string): Promise<WorkOrderRow> {
  const work = await visibleWorkOrder(ctx, id, true)
  if (work.cancelled || work.closed)
    throw conflict('closed', 'This work order has ended already. Reopen it to change that.')
  const visits = await visitsOfWork(ctx.tx, id)
  if (visits.some(({ state }) => isUnderWay(state)))
    throw conflict('not_finished', 'Somebody is on the way to it, or there.')
  const { toBillMinor } = await accountOf(ctx, await linesOf(ctx.tx, id), id)
  if (toBillMinor > 0)
    throw conflict(
      'still_to_bill',
      'Something is done and not billed. Bill it, or take the line out.',
    )
  return work
}
/** Whether something came of it: a visit that was finished, or a bill. What ends then is closed, else cancelled. */
async function wasDone(ctx: Ctx, id: string): Promise<boolean> {
  const visits = await visitsOfWork(ctx.tx, id)
  const { billedMinor, billedElsewhere } = await accountOf(ctx, await linesOf(ctx.tx, id), id)
  return billedMinor + billedElsewhere > 0 || visits.some(({ state }) => state === 'finished')
}
/** The visits that are still to come will not be; they are known as cancelled with the work order. */
async function cancelVisits(ctx: Ctx, id: string, known: boolean): Promise<void> {
  const planned = (await visitsOfWork(ctx.tx, id)).filter(({ state }) => state === 'planned')
  const ids = planned.map((v) => v.id)
  if (!ids.length) return
  await setCancelledWithWork(ctx.tx, ids, true)
  for (const visitId of ids) {
    await setVisitState(ctx.tx, visitId, 'cancelled')
    await letBeAboutVisit(ctx.tx, visitId)
    if (known) await setTold(ctx.tx, visitId, null)
    await inviteAgain(ctx, visitId)
  }
}
/** Closes a work order of which no (further) bill will come. Its reason stands for hours that nobody charged, too. */
export async function closeWorkOrder(ctx: Ctx, id: string, reason: string): Promise<Paper> {
  const work = await mayEnd(ctx, id)
  if (!(await wasDone(ctx, id)))
    throw conflict('not_finished', 'Nothing was done on it. Cancel it, and say why.')
  // What was still to come after the work that was done will not be.
  await cancelVisits(ctx, id, false)
  const { uncoveredSeconds } = await uncoveredOf(ctx, work, await linesOf(ctx.tx, id))
  if (uncoveredSeconds) await addExplained(ctx.tx, id, uncoveredSeconds)
  await setEnd(ctx.tx, id, { closed: true, cancelled: false })
  return ended(ctx, work, workFacts.closed({ reason, seconds: uncoveredSeconds }))
}
/** Cancels a work order that nothing came of, with the visits that were still to come. */
export async function cancelWorkOrder(
  ctx: Ctx,
  id: string,
  { reason, known }: Body<'cancelWorkOrder'>,
): Promise<Paper> {
  const work = await mayEnd(ctx, id)
  if (await wasDone(ctx, id))
    throw conflict('was_done', 'Work was done on it. Close it, and say why no more is billed.')
  await cancelVisits(ctx, id, known)
  await setEnd(ctx.tx, id, { closed: false, cancelled: true })
  return ended(ctx, work, workFacts.cancelled({ reason }))
}
/** What else stands against a place was known when it was taken. */
const TAKEN: readonly VisitWarning['code'][] = ['clash', 'time_off']
/** Whether the place of a visit is still free for it. */
async function isStillFree(ctx: Ctx, visit: VisitRow): Promise<boolean> {
  const { id, technicianId, durationSeconds } = visit
  const startAt = visit.startAt && Date.parse(visit.startAt)
  if (!technicianId || !startAt) return true
  const crew = crewIds((await boardVisit(ctx.tx, id))!)
  const place = { visitId: id, technicianId, crewIds: crew, startAt, durationSeconds }
  return (
    startAt > ctx.now &&
    !(await checkPlacement(ctx, place)).some(({ code }) => TAKEN.includes(code))
  )
}
/** Goes on with a work order that had ended: its visits come back, where their time is still theirs, else to wait for another. */
export async function reopenWorkOrder(
  ctx: Ctx,
  id: string,
  { reason }: Body<'reopenWorkOrder'>,
): Promise<Paper> {
  const work = await visibleWorkOrder(ctx, id, true)
  if (!work.cancelled && !work.closed)
    throw conflict('not_closed', 'This work order has not ended.')
  await setEnd(ctx.tx, id, { closed: false, cancelled: false })
  const visits = (await visitsOfWork(ctx.tx, id)).filter((v) => v.cancelledWithWork)
  for (const visit of visits) {
    const { version, durationSeconds } = visit
    if (!(await isStillFree(ctx, visit)))
      await moveVisit(ctx.tx, visit.id, version, {
        ...{ technicianId: null, startAt: null, durationSeconds },
      })
    await setVisitState(ctx.tx, visit.id, 'planned')
    await inviteAgain(ctx, visit.id)
  }
  if (visits.length)
    await setCancelledWithWork(
      ctx.tx,
      visits.map((v) => v.id),
      false,
    )
  return ended(ctx, work, workFacts.reopened({ reason }))
}
