// The first hour of a firm, measured in keys and presses: the browser test of it counts them.
import { spawnSync } from 'node:child_process'
import { startRig } from './lib/rig.mjs'
import { tell, type Bench } from './lib/tell'

const MOST = 220
interface Suite {
  suites?: Suite[]
  specs?: { tests: { annotations: { type: string; description?: string }[] }[] }[]
}
const annotations = ({
  suites = [],
  specs = [],
}: Suite): { type: string; description?: string }[] => [
  ...suites.flatMap(annotations),
  ...specs.flatMap(({ tests }) => tests.flatMap((test) => test.annotations)),
]
async function firstHour(): Promise<void> {
  const rig = await startRig('first-hour', { firm: true })
  try {
    const spec = 'tests/e2e/first-day/01-here.spec.ts'
    const { stdout } = spawnSync('npx', ['playwright', 'test', '--reporter=json', spec], {
      encoding: 'utf8',
      env: { ...process.env, RIGS: JSON.stringify([rig.env]) },
    })
    const report = JSON.parse(stdout.slice(stdout.indexOf('{'))) as Suite
    const keys = annotations(report).find(({ type }) => type === 'keys')?.description
    if (!keys) throw new Error('the first hour did not come to its end')
    tell({
      name: 'first-hour',
      unit: 'keys',
      what: 'keys and presses from an empty database to the first paid invoice',
      values: [Number(keys)],
      reference: MOST,
    })
  } finally {
    await rig.stop()
  }
}
export const firstHourBenches: Record<string, Bench> = {
  'first-hour': { rig: false, run: firstHour },
}
