// Acts on visits of the schedule: placed, swapped, locked, split, cancelled.
import { insertVisit, moveVisit, setVisitState } from '../visits/index'
import { canAct, stateAfter } from '../../core/documents/lifecycle'
import { visitLifecycle } from '../../core/visits/visitLifecycle'
import { isMissed } from '../../core/waiting/whereItStands'
import { visitFacts } from '../visits/facts'
import type { Fact } from '../http/facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder, visibleWorkOrder } from '../visits/account'
import { visitById, type VisitRow } from '../visits/visits.queries'
import { workOrderById, type WorkOrderRow } from '../visits/queries'
import { boardVisit, crewIds, setCrew, setLocked, skillsOfVisits } from './board.queries'
import { waitsAt } from '../waiting/at'
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
const instantOf = (iso: string | null) => (iso ? Date.parse(iso) : null)
/** Who goes along then: whoever was asked for, or went along before, but for the one whose visit it is. */
function crewFor(body: Body<'placeVisit'>, before: readonly string[]): string[] {
  if (!body.startAt || !body.technicianId) return []
  return [...new Set(body.crewIds ?? before)].filter((c) => c !== body.technicianId)
}
/** Whether nothing of its place would change. */
const staysAsItIs = (
  visit: VisitRow,
  { technicianId, startAt, durationSeconds }: Body<'placeVisit'>,
): boolean =>
  technicianId === visit.technicianId &&
  instantOf(startAt) === instantOf(visit.startAt) &&
  durationSeconds === visit.durationSeconds
/** What speaks against it there; nothing of a visit that gets no place. */
async function against(ctx: Ctx, visit: VisitRow, body: Body<'placeVisit'>, crew: string[]) {
  const startAt = instantOf(body.startAt)
  if (!body.technicianId || startAt === null) return []
  const { promiseFrom, promiseTo, promiseDate, id } = visit
  return checkPlacement(ctx, {
    ...{ promiseFrom, promiseTo, promiseDate, startAt },
    visitId: id,
    technicianId: body.technicianId,
    crewIds: crew,
    durationSeconds: body.durationSeconds,
    siteId: (await boardVisit(ctx.tx, id))!.siteId,
    skills: [...((await skillsOfVisits(ctx.tx, [id])).get(id) ?? [])],
  })
}
async function namesOf(ctx: Ctx, ids: readonly string[]): Promise<string[]> {
  const people = []
  for (const id of ids) people.push((await technicianById(ctx.tx, id))!.name)
  return people
}
/** Its time passed, and nobody began it: nothing holds it there any more. */
function wasMissed(ctx: Ctx, { state, startAt, durationSeconds }: VisitRow): boolean {
  const endsAt = startAt && Date.parse(startAt) + durationSeconds * 1000
  return isMissed({ state, endsAt: endsAt || null }, waitsAt(ctx).at.missedBefore)
}
/** What has begun stays with its technician, and what is locked where it is. */
function mayMove(ctx: Ctx, visit: VisitRow, body: Body<'placeVisit'>, sameCrew: boolean): void {
  const { startAt, technicianId } = body
  const stays = startAt !== null && technicianId === visit.technicianId
  if (visit.state !== 'planned' && !stays)
    throw conflict('started', 'This visit has started; it stays with its technician.')
  if (visit.locked && !wasMissed(ctx, visit) && !(sameCrew && staysAsItIs(visit, body)))
    throw conflict('locked', 'This visit is locked where it is. Unlock it first.')
}
export async function placeVisit(ctx: Ctx, id: string, body: Body<'placeVisit'>): Promise<Visit> {
  const visit = await changeable(ctx, id, body, [body.technicianId, ...(body.crewIds ?? [])])
  const { technicianId, durationSeconds } = body
  const startAt = instantOf(body.startAt)
  const before = crewIds((await boardVisit(ctx.tx, id))!)
  const crew = crewFor(body, before)
  const sameCrew = crew.join() === before.join()
  mayMove(ctx, visit, body, sameCrew)
  const warnings = await against(ctx, visit, body, crew)
  await mayPlace(ctx, warnings, body.override)
  if (!(await moveVisit(ctx.tx, id, body.version, { ...body, startAt })))
    throw conflict('stale', 'Someone moved this visit in the meantime.')
  if (!sameCrew) await setCrew(ctx.tx, id, crew)
  if (startAt !== null && startAt !== instantOf(visit.startAt)) await inviteAgain(ctx, id)
  const fact = visitFacts.placed({
    people: await namesOf(ctx, [...(technicianId ? [technicianId] : []), ...crew]),
    warnings: warnings.map((w) => w.text),
    startAt: { from: visit.startAt, to: body.startAt },
    technicianId: { from: visit.technicianId, to: technicianId },
    crewIds: { from: before, to: crew },
    durationSeconds: { from: visit.durationSeconds, to: durationSeconds },
  })
  return changed(ctx, visit, fact)
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
async function insertFurther(ctx: Ctx, workOrderId: string, body: Further): Promise<void> {
  const { id, technicianId, durationSeconds, split, note, override } = body
  const startAt = instantOf(body.startAt)
  if (technicianId && startAt !== null) {
    const place = { visitId: null, technicianId, startAt, durationSeconds }
    await mayPlace(ctx, await checkPlacement(ctx, place), override)
  }
  const noPromise = { promiseDate: null, promiseFrom: null, promiseTo: null }
  const why = note || (split ? 'the rest of a visit that was split' : '')
  const visit = { id, workOrderId, technicianId, startAt, durationSeconds, note: why }
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
  await insertFurther(ctx, work.id, body)
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
