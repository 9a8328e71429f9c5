// Acts on visits of the schedule: placed, swapped, locked, split, cancelled.
import { bumpVisit, moveVisit, setTold, setVisitState } from '../visits/index'
import type { VisitWarning } from '../../core/dispatch/visitWarnings'
import { canAct, stateAfter } from '../../core/documents/lifecycle'
import { visitLifecycle } from '../../core/visits/visitLifecycle'
import { isMissed } from '../../core/waiting/whereItStands'
import { visitFacts } from '../visits/facts'
import type { Fact } from '../http/facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { refreshWorkOrder } from '../visits/account'
import { promiseOf, visitById, type VisitRow } from '../visits/visits.queries'
import { workOrderById } from '../visits/queries'
import { boardVisit, crewIds, setCrew, setLocked, skillsOfVisits } from './board.queries'
import { waitsAt } from '../waiting/at'
import { lockPeople, technicianById } from './queries'
import { inviteAgain } from './invitations'
import { letBeAboutVisit } from '../messages/queries'
import { shapeVisit, type Visit } from './visitShape'
import { checkPlacement, mayPlace } from './placing'
import { askedOf, promiseAnew } from './promises'

/**
 * The visit as it is, locked for a change, at the version that the asker saw. Everybody concerned is
 * locked before it: whose it is, who goes along, and `others` who are to have it.
 */
export async function changeable(
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
export async function changed(ctx: Ctx, visit: VisitRow, fact: Fact): Promise<Visit> {
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
export const instantOf = (iso: string | null) => (iso ? Date.parse(iso) : null)
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
  const { id } = visit
  const promise = body.promise === undefined ? promiseOf(visit) : body.promise
  return checkPlacement(ctx, {
    ...{ promise, startAt },
    visitId: id,
    technicianId: body.technicianId,
    crewIds: crew,
    durationSeconds: body.durationSeconds,
    siteId: (await boardVisit(ctx.tx, id))!.siteId,
    skills: [...((await skillsOfVisits(ctx.tx, [id])).get(id) ?? [])],
  })
}
/** What a place breaks of a promise, where nobody has said yet what is promised instead. */
async function brokenBy(ctx: Ctx, visit: VisitRow, body: Body<'placeVisit'>) {
  const { technicianId, durationSeconds, promise } = body
  const startAt = instantOf(body.startAt)
  if (promise !== undefined || !technicianId || startAt === null) return null
  return askedOf(ctx, visit, { technicianId, startAt, durationSeconds })
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
  if (!body.override) await mayPlace(ctx, warnings, false, await brokenBy(ctx, visit, body))
  if (!(await moveVisit(ctx.tx, id, body.version, { ...body, startAt })))
    throw conflict('stale', 'Someone moved this visit in the meantime.')
  if (!sameCrew) await setCrew(ctx.tx, id, crew)
  if (body.promise !== undefined) await promiseAnew(ctx, visit, body.promise, body.known)
  if (startAt !== null && startAt !== instantOf(visit.startAt)) await inviteAgain(ctx, id)
  const fact = visitFacts.placed({
    people: await namesOf(ctx, [...(technicianId ? [technicianId] : []), ...crew]),
    warnings: warnings.map((w) => w.text),
    startAt: { from: visit.startAt, to: body.startAt },
    technicianId: { from: visit.technicianId, to: technicianId },
    crewIds: { from: before, to: crew },
    durationSeconds: { from: visit.durationSeconds, to: durationSeconds },
    promise: {
      from: promiseOf(visit),
      to: body.promise === undefined ? promiseOf(visit) : body.promise,
    },
  })
  return changed(ctx, visit, fact)
}
/** What is promised of a visit, where it stays. */
export async function promiseVisit(
  ctx: Ctx,
  id: string,
  body: Body<'promiseVisit'>,
): Promise<Visit> {
  const visit = await changeable(ctx, id, body)
  if (visit.state !== 'planned')
    throw conflict('started', 'This visit has started; there is nothing left to promise.')
  await promiseAnew(ctx, visit, body.promise, body.known)
  await bumpVisit(ctx.tx, id)
  const promise = { from: promiseOf(visit), to: body.promise }
  return changed(ctx, visit, visitFacts.promised({ promise, known: body.known }))
}
/** What speaks against either place, once the other has left it. */
async function againstSwap(ctx: Ctx, a: VisitRow, b: VisitRow): Promise<VisitWarning[]> {
  const said: VisitWarning[] = []
  for (const [visit, to] of [
    [a, b],
    [b, a],
  ] as const) {
    const row = (await boardVisit(ctx.tx, visit.id))!
    const warnings = await checkPlacement(ctx, {
      visitId: visit.id,
      insteadOf: to.id,
      technicianId: to.technicianId!,
      crewIds: crewIds(row).filter((id) => id !== to.technicianId),
      startAt: Date.parse(to.startAt!),
      durationSeconds: visit.durationSeconds,
      promise: promiseOf(visit),
      siteId: row.siteId,
      skills: [...((await skillsOfVisits(ctx.tx, [visit.id])).get(visit.id) ?? [])],
    })
    said.push(...warnings.map((w) => ({ ...w, text: `${row.customer}: ${w.text}` })))
  }
  return said
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
  if (!body.override) await mayPlace(ctx, await againstSwap(ctx, a, b), false)
  const move = (v: typeof a, to: typeof a, version: number) =>
    placeVisit(ctx, v.id, {
      version,
      technicianId: to.technicianId,
      startAt: to.startAt,
      durationSeconds: v.durationSeconds,
      override: true,
      crewIds: undefined,
      promise: undefined,
      known: false,
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
    const { technicianId, durationSeconds } = visit
    const crew = crewIds((await boardVisit(ctx.tx, id))!)
    await mayPlace(
      ctx,
      await checkPlacement(ctx, {
        visitId: id,
        technicianId,
        crewIds: crew,
        startAt: Date.parse(visit.startAt),
        durationSeconds,
        promise: promiseOf(visit),
      }),
      body.override,
    )
  }
  await setVisitState(ctx.tx, id, stateAfter(visitLifecycle, act))
  await letBeAboutVisit(ctx.tx, id)
  if (body.cancelled && body.known) await setTold(ctx.tx, id, null)
  await inviteAgain(ctx, id)
  return changed(
    ctx,
    visit,
    body.cancelled ? visitFacts.cancelled({ reason: body.reason }) : visitFacts.broughtBack(),
  )
}
