// npm run trial [-- NAME…] [--short] [--seed N] [--minutes N]: kills, races, wrong sign-ins, odd input and rough hands at every screen, against
// a running copy; one JSON line each.
import { appendFileSync, mkdirSync, rmSync } from 'node:fs'
import { acts } from './trials/acts/acts'
import { forgetTemplate, makeTemplate, startCopy, type Copy } from './trials/copy'
import { fuzz } from './trials/fuzz'
import { kills } from './trials/kills'
import { races } from './trials/races'
import { signIns } from './trials/signIns'
import { screens } from './trials/screens/screens'
import { report, type Trial } from './trials/tools'

const args = process.argv.slice(2)
const short = args.includes('--short')
const valued = (name: string, usual: number) =>
  args.includes(name) ? Number(args[args.indexOf(name) + 1]) : usual
const seed = valued('--seed', 7)
const TRIALS: Record<string, (copy: Copy) => Promise<Trial>> = {
  'sign-ins': (copy) => signIns(copy, short ? 60 : 200),
  races: (copy) => races(copy, short ? 2 : 12),
  fuzz: (copy) => fuzz(copy.base, short ? 600 : 20_000, seed),
  acts: (copy) => acts(copy, valued('--minutes', short ? 0.5 : 10), seed),
  kills: (copy) => kills(copy, short ? 6 : 200, seed),
  screens: (copy) => screens(copy, valued('--minutes', short ? 1 : 10), seed),
}
const names = args.filter(
  (a, i) => !a.startsWith('--') && !['--seed', '--minutes'].includes(args[i - 1] ?? ''),
)
const unknown = names.filter((name) => !(name in TRIALS))
if (unknown.length) {
  process.stderr.write(
    `There is no trial ${unknown.join(', ')}. There are: ${Object.keys(TRIALS).join(', ')}\n`,
  )
  process.exit(2)
}
/** The first of what was wrong, in a line. */
const sayFault = ({ faults: [first], lost, doubled }: Trial): string =>
  first?.split('\n', 1)[0] ?? `${lost} lost, ${doubled} doubled`
let passed = true
const FAULTS = '.data/reports/trial.txt'
mkdirSync('.data/reports', { recursive: true })
rmSync(FAULTS, { force: true })
const asked = names.length ? names : Object.keys(TRIALS)
forgetTemplate()
if (asked.length > 1) await makeTemplate()
for (const name of asked) {
  const copy = await startCopy()
  const stop = () => void copy.stop().then(() => process.exit(1))
  process.once('SIGINT', stop)
  process.once('SIGTERM', stop)
  try {
    const trial = await TRIALS[name]!(copy)
    if (report(trial)) continue
    passed = false
    // The last lines of a long run name it, not only that something failed.
    appendFileSync(FAULTS, `${name}: ${sayFault(trial)}\n`)
  } finally {
    process.off('SIGINT', stop)
    process.off('SIGTERM', stop)
    await copy.stop()
  }
}
forgetTemplate()
process.exit(passed ? 0 : 1)
