// What every benchmark shares: one JSON line each, timing, signing in.
import { quantile } from '../../core/collections/paymentHabit'

interface Result {
  name: string
  unit: string
  n: number
  median: number
  p95: number
  reference: number | null
  ratio: number | null
  what: string
}
export interface Rig {
  env: Record<string, string>
  /** where each process answers */ apps?: string[]
  stop(): Promise<void>
}
export const round = (x: number) => Math.round(x * 1000) / 1000
/** What a benchmark measured, in words and figures. */
interface Measure {
  name: string
  unit: string
  what: string
  values: number[]
  /** what it is compared with: its 95th hundredth, or its median */
  reference?: number | null
  ofMedian?: boolean
}
export function tell({
  name,
  unit,
  what,
  values,
  reference = null,
  ofMedian = false,
}: Measure): void {
  const sorted = [...values].sort((a, b) => a - b)
  const [median, p95] = [quantile(sorted, 0.5), quantile(sorted, 0.95)]
  const result: Result = {
    name,
    unit,
    n: values.length,
    median: round(median),
    p95: round(p95),
    reference: reference === null ? null : round(reference),
    ratio: reference ? round((ofMedian ? median : p95) / reference) : null,
    what,
  }
  process.stdout.write(`${JSON.stringify(result)}\n`)
}
export const seconds = async (work: () => Promise<unknown>): Promise<number> => {
  const from = performance.now()
  await work()
  return (performance.now() - from) / 1000
}
export async function cookieOf(rig: Rig, email: string): Promise<string> {
  const signIn = await fetch(`${rig.env.TEST_URL}/api/v1/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ email, password: 'open-ledger' }),
  })
  return signIn.headers.get('set-cookie')!.split(';')[0]!
}
export async function inPieces<T>(
  rows: T[],
  size: number,
  work: (piece: T[]) => Promise<unknown>,
): Promise<void> {
  for (let i = 0; i < rows.length; i += size) await work(rows.slice(i, i + size))
}
/** A benchmark; those with a rig get a fresh copy of the app each. */
export interface Bench {
  rig: boolean
  /** behind a balancer, where there are several */ processes?: number
  run: (rig: Rig) => Promise<void>
}
