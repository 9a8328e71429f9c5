// Starts the planner's thread: from the bundle beside the server, or from the source while developing.
import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { Plan, PlanInstance } from '../../core/dispatch/plan/instance'

export interface PlanThread { stop(): void, done: Promise<{ plan: Plan, cost: number, tries: number, stopped: boolean }> }
export function startPlanner(work: { instance: PlanInstance, given: Plan, seconds: number, seed: number }, progress: (passed: number) => void): PlanThread {
  const built = join(dirname(process.argv[1] ?? ''), 'plan-worker.mjs')
  const worker = existsSync(built) ? new Worker(built, { workerData: work }) : new Worker('./server/work/planWorker.ts', { workerData: work, execArgv: ['--import', 'tsx'] })
  worker.unref()
  return {
    stop: () => worker.postMessage('stop'),
    done: new Promise((done, fail) => {
      worker.on('message', (said: { passed: number, plan?: Plan, cost: number, tries: number, stopped: boolean }) => {
        if (said.plan) done({ plan: said.plan, cost: said.cost, tries: said.tries, stopped: said.stopped })
        else progress(said.passed)
      })
      worker.once('error', fail)
      worker.once('exit', code => fail(new Error(`the planner ended by itself (${code})`)))
    }),
  }
}
