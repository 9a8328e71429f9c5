// Wrong sign-ins by the hundred, from one address and from many: health answers throughout, and nobody is shut out.
import { Worker } from 'node:worker_threads'
import type { Copy } from './copy'
import { p95, pause, Person, type Trial } from './tools'

/** A health answer that waits for hashes waits for most of them: it may take this share of the time of all. */
const HEALTH_MOST_SHARE = 0.25
const SETTLE_MS = 300
function watchHealth(copy: Copy): { end(): Promise<number[]> } {
  const worker = new Worker(new URL('./healthWatch.mjs', import.meta.url), {
    workerData: { base: copy.base },
  })
  const told = new Promise<number[]>((done, fail) => {
    worker.once('message', done)
    worker.once('error', fail)
  })
  return {
    end() {
      worker.postMessage('end')
      return told
    },
  }
}
export async function signIns(copy: Copy, count: number): Promise<Trial> {
  const faults: string[] = []
  const statuses: Record<string, number> = {}
  await new Person(copy.base, 'office@demo.test').signIn()
  const health = watchHealth(copy)
  await pause(SETTLE_MS)
  const tries = (address: (n: number) => string) =>
    Promise.all(
      Array.from({ length: count }, async (_, n) => {
        const reply = await new Person(copy.base, '', address(n)).once('POST', '/api/v1/session', {
          email: n % 2 ? 'office@demo.test' : `nobody${n}@demo.test`,
          password: 'wrong',
        })
        statuses[reply.status] = (statuses[reply.status] ?? 0) + 1
        if (![401, 429, 503].includes(reply.status))
          faults.push(`a wrong sign-in was answered ${reply.status}`)
      }),
    )
  const from = performance.now()
  await tries(() => '192.0.2.10')
  await tries((n) => `198.51.100.${n % 250}`)
  const took = performance.now() - from
  const times = await health.end()
  const worst = Math.max(...times)
  if (worst > HEALTH_MOST_SHARE * took)
    faults.push(`health took ${Math.round(worst)} ms of ${Math.round(took)} ms`)
  // Whoever signed in from here before still does.
  await new Person(copy.base, 'office@demo.test')
    .signIn()
    .catch((error: Error) => faults.push(error.message))
  return {
    name: 'sign-ins',
    acts: 2 * count,
    faults,
    lost: 0,
    doubled: 0,
    statuses,
    healthP95Ms: p95(times),
    healthWorstMs: Math.round(worst),
  }
}
