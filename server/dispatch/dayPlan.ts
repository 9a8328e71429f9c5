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
import { changesOf } from './planChanges'

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
export async function beginPlan(ctx: Ctx, body: Body<'beginPlan'>): Promise<DayPlan> {
  const { id, ...wish } = body
  // Asked twice with the same identifier, it is the same plan.
  if (await dayPlanById(ctx.tx, id)) return dayPlan(ctx, id)
  if (wish.dates.some((d) => d < ctx.today))
    throw invalid('dates', 'A day that has passed cannot be planned.')
  if (wish.absentId && !(await technicianById(ctx.tx, wish.absentId)))
    throw invalid('absentId', 'This person cannot be booked.')
  const { instance, given, visits } = await instanceOf(ctx, wish)
  if (instance.technicians.length === 0)
    throw conflict('nobody_works', 'Nobody works on these days.')
  if (instance.visits.length === 0)
    throw conflict(
      'nothing_to_plan',
      'There is nothing on these days that could be planned otherwise.',
    )
  const by = signedIn(ctx)
  await lockPeople(ctx.tx, [by.id])
  if ((await plansRunningFor(ctx.tx, by.id)) >= MOST_PLANS)
    throw new LedgerError(
      'too_many_plans',
      429,
      `You have ${MOST_PLANS} plans under way already. Stop one, or wait for it.`,
      [],
      { retryAfter: 10 },
    )
  await insertDayPlan(ctx.tx, { id, wish, by: by.id, at: ctx.now })
  await record(ctx, { subject: 'plan', id, fact: planFacts.asked({ days: wish.dates }) })
  const names = new Map<string, string>()
  for (const v of new Set([
    ...instance.technicians.map((t) => t.id.split(' ')[0]!),
    ...[...visits.values()].flatMap((x) => x.technicianId ?? []),
  ]))
    names.set(v, (await technicianById(ctx.tx, v))?.name ?? '')
  const before = factsOf(describePlan(instance, given))
  const later = (work: (c: Ctx) => Promise<unknown>) =>
    inBackgroundContext(work, { actor: by, ip: ctx.ip }).catch((error) =>
      log.error({ err: (error as Error).message }, 'plan'),
    )
  ctx.tx.afterCommit(() => {
    let told = 0
    const thread = startPlanner({ instance, given, seconds: wish.seconds, seed: 7 }, (passed) => {
      if (passed - told < 0.1) return
      told = passed
      void inBackgroundContext((c) => setPlanProgress(c.tx, id, passed)).catch(() => {})
    })
    const alive = setInterval(() => {
      void inBackgroundContext((c) => keepPlanAlive(c.tx, id, Date.now())).then(
        (wanted) => {
          if (wanted) thread.stop()
        },
        () => {},
      )
    }, ALIVE_EVERY_MS)
    running.set(id, thread)
    void thread.done
      .then(
        ({ plan, stopped }) =>
          later((c) =>
            setPlanState(c.tx, id, stopped ? 'stopped' : 'ready', {
              result: {
                before,
                after: factsOf(describePlan(instance, plan)),
                changes: changesOf(c, wish, instance, given, plan, visits, names),
              },
            }),
          ),
        (error) =>
          later((c) =>
            setPlanState(c.tx, id, 'failed', {
              problem: `The planner could not do it: ${(error as Error).message}. Nothing was changed.`,
            }),
          ),
      )
      .finally(() => {
        clearInterval(alive)
        running.delete(id)
      })
  })
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
  if (!proposal || (row.state !== 'ready' && row.state !== 'stopped'))
    throw conflict('not_ready', 'There is no proposal to accept yet.')
  const chosen = body.visitIds.map(
    (v, i) =>
      proposal.changes.find((c) => c.visitId === v) ??
      (() => {
        throw invalid(`visitIds[${i}]`, 'This visit is not among the changes.')
      })(),
  )
  await lockPeople(ctx.tx, [
    wish.absentId,
    ...chosen.flatMap((c) => [c.from.technicianId, c.to.technicianId]),
  ])
  // Everything as it was proposed, or nothing: what somebody moved since then makes the proposal an old one.
  const undo: Answer<'acceptPlan'>['undo'] = []
  for (const change of chosen) {
    const now = (await boardVisit(ctx.tx, change.visitId))!
    if (now.version !== change.version || now.state !== 'planned')
      throw conflict(
        'plan_is_old',
        `${now.number}, ${now.title}, was changed since this was proposed. Ask for a new plan.`,
      )
    const placed = await placeVisit(ctx, change.visitId, {
      version: change.version,
      technicianId: change.to.technicianId,
      startAt: change.to.startAt,
      durationSeconds: change.durationSeconds,
      override: true,
      crewIds: undefined,
    })
    undo.push({
      visitId: change.visitId,
      version: placed.version,
      technicianId: change.from.technicianId,
      startAt: change.from.startAt,
      durationSeconds: change.durationSeconds,
    })
  }
  if (wish.absentId) {
    const zone = ctx.company.timeZone
    for (const date of wish.dates) {
      const from = Math.max(
        localToInstant(date, '00:00', zone),
        date === localDate(ctx.now, zone) ? ctx.now : 0,
      )
      await insertTimeOff(ctx.tx, {
        id: ctx.id(),
        personId: wish.absentId,
        from,
        to: localToInstant(plusDays(date, 1), '00:00', zone),
        reason: wish.reason || 'ill',
      })
      await record(ctx, {
        subject: 'person',
        id: wish.absentId,
        fact: personFacts.offFrom({
          at: new Date(from).toISOString(),
          reason: wish.reason || 'ill',
        }),
      })
    }
  }
  await setPlanState(ctx.tx, id, 'accepted', {})
  await record(ctx, {
    subject: 'plan',
    id,
    fact: planFacts.accepted({ chosen: chosen.length, of: proposal.changes.length }),
  })
  return { plan: await dayPlan(ctx, id), undo }
}
