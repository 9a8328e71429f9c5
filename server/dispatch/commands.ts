// Acts on visits of the schedule: placed, swapped, locked, split, cancelled.
import { canAct, stateAfter } from '../../core/documents/lifecycle'
import { visitLifecycle } from '../../core/visits/visitLifecycle'
import { visitFacts } from '../visits/facts'
import type { Fact } from '../http/facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder, visibleWorkOrder } from '../visits/account'
import {
  insertVisit,
  moveVisit,
  setVisitState,
  visitById,
  type VisitRow,
} from '../visits/visits.queries'
import { workOrderById } from '../visits/queries'
import { boardVisit, crewIds, setCrew, setLocked, skillsOfVisits } from './board.queries'
import { lockPeople, technicianById } from './queries'
import { inviteAgain } from './invitations'
import { shapeVisit, type Visit } from './visitShape'
import { checkPlacement, mayPlace } from './placing'

/**
 * The visit as it is, locked for a change, at the version that the asker saw. Everybody concerned is
 * locked before it: whose it is, who goes along, and `others` who are to have it.
 */
async function changeable(
  ctx: Ctx,
  id: string,
  yours: { version: number },
  others: readonly (string | null)[] = [],
): Promise<VisitRow> {
  const now = await boardVisit(ctx.tx, id)
  if (!now) throw notFound('visit')
  await lockPeople(ctx.tx, [now.technicianId, ...crewIds(now), ...others])
  const visit = await visitById(ctx.tx, id, true)
  if (!visit) throw notFound('visit')
  if (visit.version !== yours.version)
    throw conflict('stale', 'Someone moved or changed this visit in the meantime.', {
      current: await shapeVisit(ctx, id),
      yours,
    })
  return visit
}
/** What every change of a visit ends with: a word in the history, the work order's state, the visit as it is now. */
async function changed(ctx: Ctx, visit: VisitRow, fact: Fact): Promise<Visit> {
  const work = (await workOrderById(ctx.tx, visit.workOrderId))!
  await record(ctx, {
    subject: 'visit',
    id: visit.id,
    workOrderId: work.id,
    customerId: work.customerId,
    fact,
  })
  await refreshWorkOrder(ctx, work.id)
  return shapeVisit(ctx, visit.id)
}
export async function placeVisit(ctx: Ctx, id: string, body: Body<'placeVisit'>): Promise<Visit> {
  const visit = await changeable(ctx, id, body, [body.technicianId, ...(body.crewIds ?? [])])
  const startAt = body.startAt ? Date.parse(body.startAt) : null
  if (visit.state !== 'planned' && (startAt === null || body.technicianId !== visit.technicianId))
    throw conflict('started', 'This visit has started; it stays with its technician.')
  const row = (await boardVisit(ctx.tx, id))!
  const before = crewIds(row)
  const crew =
    startAt === null || !body.technicianId
      ? []
      : [...new Set(body.crewIds ?? before)].filter((c) => c !== body.technicianId)
  const same =
    body.technicianId === visit.technicianId &&
    startAt === (visit.startAt ? Date.parse(visit.startAt) : null) &&
    body.durationSeconds === visit.durationSeconds &&
    crew.join() === before.join()
  if (visit.locked && !same)
    throw conflict('locked', 'This visit is locked where it is. Unlock it first.')
  const warnings =
    body.technicianId && startAt !== null
      ? await checkPlacement(ctx, {
          visitId: id,
          technicianId: body.technicianId,
          crewIds: crew,
          startAt,
          durationSeconds: body.durationSeconds,
          promiseFrom: visit.promiseFrom,
          promiseTo: visit.promiseTo,
          promiseDate: visit.promiseDate,
          siteId: row.siteId,
          skills: [...((await skillsOfVisits(ctx.tx, [id])).get(id) ?? [])],
        })
      : []
  await mayPlace(ctx, warnings, body.override)
  if (!(await moveVisit(ctx.tx, id, body.version, { ...body, startAt })))
    throw conflict('stale', 'Someone moved this visit in the meantime.')
  if (crew.join() !== before.join()) await setCrew(ctx.tx, id, crew)
  if (startAt !== null && startAt !== (visit.startAt ? Date.parse(visit.startAt) : null))
    await inviteAgain(ctx, id)
  const names = await Promise.all(
    [...(body.technicianId ? [body.technicianId] : []), ...crew].map(
      async (p) => (await technicianById(ctx.tx, p))!.name,
    ),
  )
  return changed(
    ctx,
    visit,
    visitFacts.placed({
      people: names,
      warnings: warnings.map((w) => w.text),
      startAt: { from: visit.startAt, to: body.startAt },
      technicianId: { from: visit.technicianId, to: body.technicianId },
      crewIds: { from: before, to: crew },
      durationSeconds: { from: visit.durationSeconds, to: body.durationSeconds },
    }),
  )
}
/** Two visits change places, in one act: either both move or neither. What is wrong with it is in the history of each. */
export async function swapVisits(
  ctx: Ctx,
  body: Body<'swapVisits'>,
): Promise<Answer<'swapVisits'>> {
  if (body.first.id === body.second.id)
    throw invalid('second', 'A visit cannot change places with itself.')
  const seen = [await boardVisit(ctx.tx, body.first.id), await boardVisit(ctx.tx, body.second.id)]
  await lockPeople(
    ctx.tx,
    seen.flatMap((v) => (v ? [v.technicianId, ...crewIds(v)] : [])),
  )
  const [a, b] = [
    await visitById(ctx.tx, body.first.id, true),
    await visitById(ctx.tx, body.second.id, true),
  ]
  if (!a || !b) throw notFound('visit')
  if (!a.startAt || !a.technicianId || !b.startAt || !b.technicianId)
    throw conflict('no_slot', 'Only visits that have a slot change places.')
  const move = (v: typeof a, to: typeof a, version: number) =>
    placeVisit(ctx, v.id, {
      version,
      technicianId: to.technicianId,
      startAt: to.startAt,
      durationSeconds: v.durationSeconds,
      override: true,
      crewIds: undefined,
    })
  return { visits: [await move(a, b, body.first.version), await move(b, a, body.second.version)] }
}
/** A lock keeps a visit where it is, against people and against the planner. */
export async function lockVisit(ctx: Ctx, id: string, body: Body<'lockVisit'>): Promise<Visit> {
  const visit = await changeable(ctx, id, body)
  if (body.locked && (!visit.startAt || !visit.technicianId))
    throw conflict('no_slot', 'A visit without a slot has nothing to be locked to.')
  await setLocked(ctx.tx, id, body.version, body.locked)
  return changed(ctx, visit, body.locked ? visitFacts.locked() : visitFacts.unlocked())
}
/**
 * A further visit of the same work order: another one as long as this (a copy), or the rest of this one (a split), which becomes shorter by it.
 * It has no promise of its own yet. A technician may ask for one from the door, with the reason; the office finds its time.
 */
export async function furtherVisit(
  ctx: Ctx,
  id: string,
  body: Body<'furtherVisit'>,
): Promise<Answer<'furtherVisit'>> {
  // First whether it is theirs to see: a stale version would be answered with the visit as it is.
  const seen = await visitById(ctx.tx, id)
  if (!seen) throw notFound('visit')
  await lockPeople(ctx.tx, [seen.technicianId, body.technicianId])
  const work = await visibleWorkOrder(ctx, seen.workOrderId, true)
  const visit = await changeable(ctx, id, body, [body.technicianId])
  if (work.cancelled || work.closed)
    throw conflict('closed', 'This work order is closed; it has no further visits.')
  const known = await visitById(ctx.tx, body.id)
  if (known && known.workOrderId !== work.id)
    throw invalid('id', 'This identifier belongs to something else.')
  if (known) return { visit: await shapeVisit(ctx, body.id), of: await shapeVisit(ctx, id) }
  const startAt = body.startAt ? Date.parse(body.startAt) : null
  if (signedIn(ctx).role === 'technician' && (body.split || startAt !== null))
    throw conflict('office_places', 'The office finds the time for it.')
  if (body.split && visit.state !== 'planned')
    throw conflict('started', 'This visit has started: ask for a further one instead.')
  if (body.split && visit.locked)
    throw conflict('locked', 'This visit is locked where it is. Unlock it first.')
  if (body.split && visit.durationSeconds - body.durationSeconds < 900)
    throw invalid('durationSeconds', 'Each part takes a quarter of an hour or more.')
  if (body.technicianId && startAt !== null)
    await mayPlace(
      ctx,
      await checkPlacement(ctx, {
        visitId: null,
        technicianId: body.technicianId,
        startAt,
        durationSeconds: body.durationSeconds,
      }),
      body.override,
    )
  await insertVisit(ctx.tx, {
    id: body.id,
    workOrderId: work.id,
    technicianId: body.technicianId,
    startAt,
    durationSeconds: body.durationSeconds,
    promiseDate: null,
    promiseFrom: null,
    promiseTo: null,
    note: body.note || (body.split ? 'the rest of a visit that was split' : ''),
  })
  if (body.split)
    await moveVisit(ctx.tx, id, body.version, {
      technicianId: visit.technicianId,
      startAt: visit.startAt ? Date.parse(visit.startAt) : null,
      durationSeconds: visit.durationSeconds - body.durationSeconds,
    })
  const of = await changed(
    ctx,
    visit,
    (body.split ? visitFacts.split : visitFacts.further)({ note: body.note }),
  )
  return { visit: await shapeVisit(ctx, body.id), of }
}
/** A visit that will not be, with its reason; and back. What was clocked or signed is never taken away with it. */
export async function cancelVisit(ctx: Ctx, id: string, body: Body<'cancelVisit'>): Promise<Visit> {
  const visit = await changeable(ctx, id, body)
  const act = body.cancelled ? 'cancel' : 'bring_back'
  if (!canAct(visitLifecycle, act, visit.state))
    throw conflict(
      'not_now',
      body.cancelled
        ? 'Only a visit that has not begun is cancelled.'
        : 'This visit is not cancelled.',
    )
  // Its time may have been given to somebody else since.
  if (!body.cancelled && visit.technicianId && visit.startAt) {
    const { technicianId, durationSeconds, promiseDate, promiseFrom, promiseTo } = visit
    const crew = crewIds((await boardVisit(ctx.tx, id))!)
    await mayPlace(
      ctx,
      await checkPlacement(ctx, {
        visitId: id,
        technicianId,
        crewIds: crew,
        startAt: Date.parse(visit.startAt),
        durationSeconds,
        promiseDate,
        promiseFrom,
        promiseTo,
      }),
      body.override,
    )
  }
  await setVisitState(ctx.tx, id, stateAfter(visitLifecycle, act))
  await inviteAgain(ctx, id)
  return changed(
    ctx,
    visit,
    body.cancelled ? visitFacts.cancelled({ reason: body.reason }) : visitFacts.broughtBack(),
  )
}
