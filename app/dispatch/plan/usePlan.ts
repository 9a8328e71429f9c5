// A plan of a day: asked for, followed until there is something to show, accepted in whole or in part.
import { onScopeDispose, ref } from 'vue'
import type { Answer, Given } from '~~/shared/api'
import { call, type Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useBoard } from '~/stores/board'

export type Plan = Answer<'dayPlan'>
export type PlanChange = Plan['changes'][number]
/** A plan that has something to compare. */
export type ReadyPlan = Plan & Record<'before' | 'after', NonNullable<Plan['before']>>
export const isReady = (plan: Plan | null): plan is ReadyPlan => Boolean(plan?.before && plan.after)
const ASK_AGAIN_MS = 300

export function usePlan() {
  const board = useBoard()
  const plan = ref<Plan | null>(null)
  const chosen = ref<string[]>([])
  const { busy, problem, act } = useAct()
  const propose = (body: Given<'beginPlan'>) =>
    act(async () => {
      plan.value = await call('beginPlan', { body })
      await follow(plan.value.id)
    })
  /** Asks how far it is until there is something to show; another plan ends the asking. */
  async function follow(id: string) {
    while (plan.value?.id === id && plan.value.state === 'running') {
      await new Promise((done) => setTimeout(done, ASK_AGAIN_MS))
      plan.value = await call('dayPlan', { params: { id } }).catch((error: Problem) => {
        if (error.code === 'offline') return plan.value
        throw error
      })
    }
    if (plan.value?.id === id) chosen.value = plan.value.changes.map((c) => c.visitId)
  }
  /** What was proposed is no longer what is asked for; a plan that is being made goes on for nobody. */
  function forget() {
    if (plan.value?.state === 'running') stop()
    plan.value = null
    chosen.value = []
  }
  onScopeDispose(forget)
  const stop = () =>
    void call('stopPlan', { params: { id: plan.value!.id } }).catch(() => {
      /* it was ready in that moment */
    })
  const accept = () =>
    act(async () => {
      const params = { id: plan.value!.id }
      const done = await call('acceptPlan', { params, body: { visitIds: chosen.value } })
      board.keep(done.undo.map((visit) => undoOf(visit, done.plan)))
      plan.value = done.plan
      return true
    })
  return { plan, chosen, busy, problem, propose, forget, stop, accept }
}
/** How a visit that was moved goes back, and forward again. */
function undoOf({ visitId, version, ...before }: Answer<'acceptPlan'>['undo'][number], plan: Plan) {
  const { to } = plan.changes.find((c) => c.visitId === visitId)!
  const after = { ...to, durationSeconds: before.durationSeconds }
  return { id: visitId, before, after, version }
}
