// The planner in a thread of its own: told an instance, says how far it is, stops when told, ends with the best plan.
import { parentPort, workerData } from 'node:worker_threads'
import type { Plan, PlanInstance } from '../../core/dispatch/plan/instance'
import { planDays } from '../../core/dispatch/plan/planDays'
import { seeded } from '../../core/random/seeded'

const { instance, given, seconds, seed } = workerData as {
  instance: PlanInstance
  given: Plan
  seconds: number
  seed: number
}
let stopped = false
parentPort!.on('message', (word) => {
  if (word === 'stop') stopped = true
})
async function run(): Promise<void> {
  const search = planDays(instance, { given, random: seeded(seed), every: 50 })
  const from = performance.now()
  let told = 0
  let report = search.next()
  while (!report.done) {
    const passed = stopped ? 1 : (performance.now() - from) / 1000 / seconds
    if (passed - told > 0.04) {
      told = passed
      parentPort!.postMessage({ passed: Math.min(1, passed), cost: report.value.cost })
    }
    // Room for the word to stop.
    await new Promise((done) => setImmediate(done))
    report = search.next(passed)
  }
  parentPort!.postMessage({
    passed: 1,
    plan: report.value.plan,
    cost: report.value.cost,
    tries: report.value.tries,
    stopped,
  })
  parentPort!.close()
}
void run()
