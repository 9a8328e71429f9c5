// A further visit of a work order: a copy, or the rest of a visit that is split.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { visibleWorkOrder } from '../visits/account'
import { visitFacts } from '../visits/facts'
import { insertVisit, moveVisit } from '../visits/index'
import type { WorkOrderRow } from '../visits/queries'
import { visitById, type VisitRow } from '../visits/visits.queries'
import { changeable, changed, instantOf } from './commands'
import { checkPlacement, mayPlace } from './placing'
import { lockPeople } from './queries'
import { shapeVisit } from './visitShape'

/**
 * A further visit of the same work order: another one as long as this (a copy), or the rest of this one (a split), which becomes shorter by it.
 * It has no promise of its own yet. A technician may ask for one from the door, with the reason; the office finds its time.
 */
const SHORTEST_PART_SECONDS = 15 * 60
type Further = Body<'furtherVisit'>
/** A split leaves a quarter of an hour or more on both sides, and takes nothing from what has begun or is locked. */
function maySplit(visit: VisitRow, body: Further): void {
  if (visit.state !== 'planned')
    throw conflict('started', 'This visit has started: ask for a further one instead.')
  if (visit.locked) throw conflict('locked', 'This visit is locked where it is. Unlock it first.')
  if (visit.durationSeconds - body.durationSeconds < SHORTEST_PART_SECONDS)
    throw invalid('durationSeconds', 'Each part takes a quarter of an hour or more.')
}
async function insertFurther(
  ctx: Ctx,
  { workOrderId, phaseId }: VisitRow,
  body: Further,
): Promise<void> {
  const { id, technicianId, durationSeconds, split, note, override } = body
  const startAt = instantOf(body.startAt)
  if (technicianId && startAt !== null) {
    const place = { visitId: null, technicianId, startAt, durationSeconds }
    await mayPlace(ctx, await checkPlacement(ctx, place), override)
  }
  const noPromise = { promiseDate: null, promiseFrom: null, promiseTo: null }
  const why = note || (split ? 'the rest of a visit that was split' : '')
  const visit = { id, workOrderId, technicianId, startAt, durationSeconds, note: why, phaseId }
  await insertVisit(ctx.tx, { ...visit, ...noPromise })
}
function mayHaveFurther(ctx: Ctx, work: WorkOrderRow, body: Further): void {
  if (work.cancelled || work.closed)
    throw conflict('closed', 'This work order is closed; it has no further visits.')
  if (signedIn(ctx).role === 'technician' && (body.split || body.startAt))
    throw conflict('office_places', 'The office finds the time for it.')
}
export async function furtherVisit(
  ctx: Ctx,
  id: string,
  body: Further,
): Promise<Answer<'furtherVisit'>> {
  // First whether it is theirs to see: a stale version would be answered with the visit as it is.
  const seen = await visitById(ctx.tx, id)
  if (!seen) throw notFound('visit')
  await lockPeople(ctx.tx, [seen.technicianId, body.technicianId])
  const work = await visibleWorkOrder(ctx, seen.workOrderId, true)
  const visit = await changeable(ctx, id, body, [body.technicianId])
  mayHaveFurther(ctx, work, body)
  const known = await visitById(ctx.tx, body.id)
  if (known && known.workOrderId !== work.id)
    throw invalid('id', 'This identifier belongs to something else.')
  if (known) return { visit: await shapeVisit(ctx, body.id), of: await shapeVisit(ctx, id) }
  if (body.split) maySplit(visit, body)
  await insertFurther(ctx, visit, body)
  if (body.split)
    await moveVisit(ctx.tx, id, body.version, {
      technicianId: visit.technicianId,
      startAt: instantOf(visit.startAt),
      durationSeconds: visit.durationSeconds - body.durationSeconds,
    })
  const fact = (body.split ? visitFacts.split : visitFacts.further)({ note: body.note })
  const of = await changed(ctx, visit, fact)
  return { visit: await shapeVisit(ctx, body.id), of }
}
