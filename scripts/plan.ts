// npm run plan -- FILE.json [--seconds N] [--seed N] [--tries N]: reads an instance, prints plan and cost as JSON.
// With --tries instead of --seconds the answer does not depend on how fast the machine is.
import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { describePlan } from '../core/dispatch/plan/describePlan'
import { planDays } from '../core/dispatch/plan/planDays'
import { LedgerError } from '../core/errors/LedgerError'
import { readPlanInstance } from '../core/formats/planInstance'
import { seeded } from '../core/random/seeded'

const usage = 'Usage: npm run plan -- FILE.json [--seconds N] [--seed N] [--tries N]\n'
function fail(message: string): never {
  process.stderr.write(`${message}\n`)
  process.exit(2)
}
const number = (text: string | undefined, fallback: number, name: string): number => {
  const n = text === undefined ? fallback : Number(text)
  return Number.isFinite(n) && n >= 0 ? n : fail(`--${name} needs a number that is not negative.`)
}
let args: ReturnType<typeof parse>
function parse() {
  return parseArgs({
    allowPositionals: true,
    options: { seconds: { type: 'string' }, seed: { type: 'string' }, tries: { type: 'string' } },
  })
}
try {
  args = parse()
} catch (error) {
  fail(`${(error as Error).message}\n${usage}`)
}
const [file] = args.positionals
if (!file || args.positionals.length > 1) fail(usage)
const seconds = number(args.values.seconds, 5, 'seconds')
const tries = args.values.tries === undefined ? null : number(args.values.tries, 0, 'tries')
const seed = number(args.values.seed, 1, 'seed')
// Stopped by the keyboard, the best plan so far is printed: the same as when its time is over.
let stopped = false
process.once('SIGINT', () => {
  stopped = true
})
try {
  const { instance, given, scale } = readPlanInstance(readFileSync(file!, 'utf8'))
  const search = planDays(instance, { given, random: seeded(seed) })
  const from = performance.now()
  let report = search.next()
  let told = 0
  while (!report.done) {
    const inTime = (performance.now() - from) / 1000 / Math.max(seconds, 1e-9)
    const share = tries === null ? inTime : report.value.tries / Math.max(1, tries)
    const passed = stopped ? 1 : share
    if (process.stderr.isTTY && passed >= told + 0.1) {
      told = passed
      process.stderr.write(`${Math.round(passed * 100)} % · cost ${report.value.cost / scale}\n`)
    }
    // Room for the signal to be heard.
    await new Promise((done) => setImmediate(done))
    report = search.next(passed)
  }
  const facts = describePlan(instance, report.value.plan)
  const round = (x: number) => Math.round((x / scale) * 1000) / 1000
  process.stdout.write(
    `${JSON.stringify({
      cost: {
        distance: round(facts.driving),
        total: round(facts.total),
        overtime: round(facts.overtime),
        broken: facts.broken,
        unserved: facts.unserved.length,
      },
      routes: facts.days
        .filter((d) => d.stops.length)
        .map((d) => ({
          technician: d.technicianId,
          distance: round(d.driving),
          visits: d.stops.map((s) => ({
            id: s.visitId,
            start: round(s.start),
            finish: round(s.finish),
          })),
        })),
      unserved: facts.unserved,
    })}\n`,
  )
} catch (error) {
  fail(
    error instanceof LedgerError || (error as { code?: string }).code === 'ENOENT'
      ? (error as Error).message
      : String((error as Error).stack),
  )
}
