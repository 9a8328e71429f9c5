// The planner, in its thread.
import type { Plan, PlanInstance } from '../../core/dispatch/plan/instance'
import { startThread } from './thread'

export interface PlanThread {
  stop(): void
  done: Promise<{ plan: Plan; cost: number; tries: number; stopped: boolean }>
}
export function startPlanner(
  work: { instance: PlanInstance; given: Plan; seconds: number; seed: number },
  progress: (passed: number) => void,
): PlanThread {
  const worker = startThread('planWorker', work)
  return {
    stop: () => worker.postMessage('stop'),
    done: new Promise((done, fail) => {
      worker.on(
        'message',
        (said: { passed: number; plan?: Plan; cost: number; tries: number; stopped: boolean }) => {
          if (said.plan)
            done({ plan: said.plan, cost: said.cost, tries: said.tries, stopped: said.stopped })
          else progress(said.passed)
        },
      )
      worker.once('error', fail)
      worker.once('exit', (code) => fail(new Error(`the planner ended by itself (${code})`)))
    }),
  }
}
