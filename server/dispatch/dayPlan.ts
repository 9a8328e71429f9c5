// A plan for days: asked for, worked out in a thread, accepted change by change.
import { personFacts, planFacts } from './facts'
import { conflict, invalid, LedgerError, notFound } from '../../core/errors/LedgerError'
import { describePlan } from '../../core/dispatch/plan/describePlan'
import { localDate, localToInstant, plusDays } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { inBackgroundContext, signedIn, type Ctx } from '../http/context'
import { log } from '../http/log'
import { record } from '../http/queries'
import { startPlanner, type PlanThread } from '../work/planThread'
import { boardVisit } from './board.queries'
import {
  dayPlanById,
  insertDayPlan,
  keepPlanAlive,
  plansRunningFor,
  setPlanProgress,
  setPlanState,
  wantPlanStopped,
} from './plans.queries'
import { insertTimeOff } from './setUp.queries'
import { lockPeople, technicianById } from './queries'
import { placeVisit } from './commands'
import type { DayPlan } from './planInstance'
import { instanceOf, factsOf } from './planInstance'
import { changesOf, type Planned } from './planChanges'
import type { Plan } from '../../core/dispatch/plan/instance'

/** Plans that one person may have under way at once. */
const MOST_PLANS = 2
const ALIVE_EVERY_MS = 1_000
/** Threads of this process; what has to be known elsewhere stands in the database. */
const running = new Map<string, PlanThread>()
function shape(row: NonNullable<Awaited<ReturnType<typeof dayPlanById>>>, absent: string): DayPlan {
  const { wish, result } = row
  return {
    id: row.id,
    state: row.state,
    progress: Math.round(Number(row.progress) * 100),
    problem: row.problem,
    askedAt: row.askedAt,
    dates: wish.dates,
    absent,
    before: result?.before ?? null,
    after: result?.after ?? null,
    changes: result?.changes ?? [],
  }
}
export async function dayPlan(ctx: Ctx, id: string): Promise<DayPlan> {
  const row = await dayPlanById(ctx.tx, id)
  if (!row) throw notFound('plan')
  const { absentId } = row.wish
  return shape(row, absentId ? ((await technicianById(ctx.tx, absentId))?.name ?? '') : '')
}
type PlanWish = Omit<Body<'beginPlan'>, 'id'>
/** What there is to plan on these days, for people who work. */
async function plannable(ctx: Ctx, wish: PlanWish) {
  if (wish.dates.some((d) => d < ctx.today))
    throw invalid('dates', 'A day that has passed cannot be planned.')
  if (wish.absentId && !(await technicianById(ctx.tx, wish.absentId)))
    throw invalid('absentId', 'This person cannot be booked.')
  const read = await instanceOf(ctx, wish)
  if (read.instance.technicians.length === 0)
    throw conflict('nobody_works', 'Nobody works on these days.')
  if (read.instance.visits.length === 0)
    throw conflict(
      'nothing_to_plan',
      'There is nothing on these days that could be planned otherwise.',
    )
  return read
}
async function refuseTooMany(ctx: Ctx, personId: string): Promise<void> {
  await lockPeople(ctx.tx, [personId])
  if ((await plansRunningFor(ctx.tx, personId)) < MOST_PLANS) return
  throw new LedgerError(
    'too_many_plans',
    `You have ${MOST_PLANS} plans under way already. Stop one, or wait for it.`,
    { extra: { retryAfter: 10 } },
  )
}
/** Everybody whom the plan speaks of, by identifier. */
async function namesIn(ctx: Ctx, { instance, visits }: Awaited<ReturnType<typeof instanceOf>>) {
  const ids = new Set([
    ...instance.technicians.map((t) => t.id.split(' ')[0]!),
    ...[...visits.values()].flatMap((v) => v.technicianId ?? []),
  ])
  const names = new Map<string, string>()
  for (const id of ids) names.set(id, (await technicianById(ctx.tx, id))?.name ?? '')
  return names
}
/** Notes how far a plan is, each tenth of it. */
function progressOf(id: string) {
  let told = 0
  return (passed: number) => {
    if (passed - told < 0.1) return
    told = passed
    void inBackgroundContext((c) => setPlanProgress(c.tx, id, passed)).catch(() => {})
  }
}
/** Says that this process still works on it, and hears whether it is still wanted. */
function keepAlive(id: string, thread: PlanThread) {
  const ask = () => inBackgroundContext((c) => keepPlanAlive(c.tx, id, Date.now()))
  const heard = (stop: boolean) => stop && thread.stop()
  return setInterval(() => void ask().then(heard, () => {}), ALIVE_EVERY_MS)
}
/** Plans in a thread of its own; what comes of it is kept whenever it comes. */
function runPlan(ctx: Ctx, id: string, planned: Planned): void {
  const { instance, given, wish } = planned
  const job = { instance, given, seconds: wish.seconds, seed: 7 }
  const thread = startPlanner(job, progressOf(id))
  const alive = keepAlive(id, thread)
  running.set(id, thread)
  const by = { actor: signedIn(ctx), ip: ctx.ip }
  const keep = (state: 'ready' | 'stopped' | 'failed', what: Parameters<typeof setPlanState>[3]) =>
    inBackgroundContext((c) => setPlanState(c.tx, id, state, what), by).catch((error) =>
      log.error({ err: (error as Error).message }, 'plan'),
    )
  const proposal = (plan: Plan) => ({
    before: factsOf(describePlan(instance, given)),
    after: factsOf(describePlan(instance, plan)),
    changes: changesOf(planned, plan),
  })
  const problem = (error: Error) =>
    `The planner could not do it: ${error.message}. Nothing was changed.`
  void thread.done
    .then(
      ({ plan, stopped }) => keep(stopped ? 'stopped' : 'ready', { result: proposal(plan) }),
      (error) => keep('failed', { problem: problem(error as Error) }),
    )
    .finally(() => {
      clearInterval(alive)
      running.delete(id)
    })
}
export async function beginPlan(ctx: Ctx, body: Body<'beginPlan'>): Promise<DayPlan> {
  const { id, ...wish } = body
  // Asked twice with the same identifier, it is the same plan.
  if (await dayPlanById(ctx.tx, id)) return dayPlan(ctx, id)
  const read = await plannable(ctx, wish)
  const by = signedIn(ctx)
  await refuseTooMany(ctx, by.id)
  await insertDayPlan(ctx.tx, { id, wish, by: by.id, at: ctx.now })
  await record(ctx, { subject: 'plan', id, fact: planFacts.asked({ days: wish.dates }) })
  const names = await namesIn(ctx, read)
  const planned: Planned = { ...read, wish, names, timeZone: ctx.company.timeZone }
  ctx.tx.afterCommit(() => runPlan(ctx, id, planned))
  return dayPlan(ctx, id)
}
export async function stopPlan(ctx: Ctx, id: string): Promise<DayPlan> {
  const plan = await dayPlan(ctx, id)
  if (plan.state !== 'running')
    throw conflict('not_running', 'This plan is not being worked on any more.')
  // Whichever process works on it reads this; if it is this one, at once.
  await wantPlanStopped(ctx.tx, id)
  ctx.tx.afterCommit(() => running.get(id)?.stop())
  return plan
}
type Change = DayPlan['changes'][number]
/** The changes that were chosen, in the order in which they were named. */
function chosenOf(changes: readonly Change[], visitIds: readonly string[]): Change[] {
  const byVisit = new Map(changes.map((c) => [c.visitId, c]))
  return visitIds.map((visitId, i) => {
    const change = byVisit.get(visitId)
    if (!change) throw invalid(`visitIds[${i}]`, 'This visit is not among the changes.')
    return change
  })
}
/** What somebody moved since then makes the proposal an old one. Answers how it goes back. */
async function carryOut(ctx: Ctx, change: Change): Promise<Answer<'acceptPlan'>['undo'][number]> {
  const { visitId, version, durationSeconds, from, to } = change
  const now = (await boardVisit(ctx.tx, visitId))!
  if (now.version !== version || now.state !== 'planned')
    throw conflict(
      'plan_is_old',
      `${now.number}, ${now.title}, was changed since this was proposed. Ask for a new plan.`,
    )
  const { technicianId, startAt } = to
  const wanted = { version, technicianId, startAt, durationSeconds }
  const kept = { override: true, crewIds: undefined, promise: undefined, known: false }
  const placed = await placeVisit(ctx, visitId, { ...wanted, ...kept })
  return {
    visitId,
    version: placed.version,
    technicianId: from.technicianId,
    startAt: from.startAt,
    durationSeconds,
  }
}
/** Whoever is away is off on these days, from now on where one of them is today. */
async function enterAbsence(ctx: Ctx, personId: string, wish: PlanWish): Promise<void> {
  const zone = ctx.company.timeZone
  const reason = wish.reason || 'ill'
  for (const date of wish.dates) {
    const begun = date === localDate(ctx.now, zone) ? ctx.now : 0
    const from = Math.max(localToInstant(date, '00:00', zone), begun)
    const to = localToInstant(plusDays(date, 1), '00:00', zone)
    await insertTimeOff(ctx.tx, { id: ctx.id(), personId, from, to, reason })
    const at = new Date(from).toISOString()
    await record(ctx, {
      subject: 'person',
      id: personId,
      fact: personFacts.offFrom({ at, reason }),
    })
  }
}
/** Everything as it was proposed, or nothing. */
export async function acceptPlan(
  ctx: Ctx,
  id: string,
  body: Body<'acceptPlan'>,
): Promise<Answer<'acceptPlan'>> {
  const row = await dayPlanById(ctx.tx, id, true)
  if (!row) throw notFound('plan')
  if (row.state === 'accepted')
    throw conflict('already_accepted', 'This plan has been accepted already.')
  const { wish, result: proposal } = row
  if (!proposal || !['ready', 'stopped'].includes(row.state))
    throw conflict('not_ready', 'There is no proposal to accept yet.')
  const chosen = chosenOf(proposal.changes, body.visitIds)
  const people = chosen.flatMap((c) => [c.from.technicianId, c.to.technicianId])
  await lockPeople(ctx.tx, [wish.absentId, ...people])
  const undo: Answer<'acceptPlan'>['undo'] = []
  for (const change of chosen) undo.push(await carryOut(ctx, change))
  if (wish.absentId) await enterAbsence(ctx, wish.absentId, wish)
  await setPlanState(ctx.tx, id, 'accepted', {})
  const fact = planFacts.accepted({ chosen: chosen.length, of: proposal.changes.length })
  await record(ctx, { subject: 'plan', id, fact })
  return { plan: await dayPlan(ctx, id), undo }
}
