// What a monitor reads of this process, as Prometheus text: how requests go, what waits to be done, and the process itself.
import { Counter, Gauge, Histogram, Registry, collectDefaultMetrics } from 'prom-client'
import { SECOND } from '../../core/time/units'
import { reading } from '../db/pool'
import { jobCounts } from '../jobs/queries'
import { VERSION } from './version'

const registry = new Registry()
collectDefaultMetrics({ register: registry })
const requests = new Counter({
  name: 'open_ledger_requests_total',
  help: 'Requests that were answered, by route and status.',
  labelNames: ['route', 'status'] as const,
  registers: [registry],
})
const seconds = new Histogram({
  name: 'open_ledger_request_seconds',
  help: 'How long answers took, by route.',
  labelNames: ['route'] as const,
  buckets: [0.01, 0.03, 0.1, 0.3, 1, 3, 10],
  registers: [registry],
})
const info = new Gauge({
  name: 'open_ledger_info',
  help: 'The version that runs; always 1.',
  labelNames: ['version'] as const,
  registers: [registry],
})
info.set({ version: VERSION }, 1)
const jobs = new Gauge({
  name: 'open_ledger_jobs',
  help: 'Work outside requests, by kind and state.',
  labelNames: ['kind', 'state'] as const,
  registers: [registry],
})
const late = new Gauge({
  name: 'open_ledger_oldest_due_job_seconds',
  help: 'For how long the oldest job that is due has waited; 0 where none waits.',
  registers: [registry],
})
/** A request was answered. */
export function countRequest(route: string, status: number, startedMs: number): void {
  requests.inc({ route, status })
  seconds.observe({ route }, (performance.now() - startedMs) / SECOND)
}
/** All of it, as it is now. */
export async function metrics(): Promise<string> {
  const counts = await reading((tx) => jobCounts(tx, Date.now()))
  jobs.reset()
  for (const { kind, state, count } of counts) jobs.set({ kind, state }, count)
  late.set(Math.max(0, ...counts.map(({ lateSeconds }) => lateSeconds)))
  return registry.metrics()
}
