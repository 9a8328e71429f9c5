// The first day of a firm: its first hour in keys and presses, as the browser test of it counts them, and what it takes over.
import { spawnSync } from 'node:child_process'
import { v7 } from 'uuid'
import { BUCKETS, bucketOf, type Bucket } from '../core/collections/ageing'
import { seeded } from '../core/random/seeded'
import type { Answer } from '../shared/api'
import { startRig } from './lib/rig.mjs'
import { cookieOf, inPieces, seconds, tell, type Bench, type Rig } from './lib/tell'

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

const [ITEMS, PAYERS, PIECE, FEW_SECONDS] = [5000, 1400, 500, 20]
/** Open items of some customers, over the last half year and more; the same each time. */
function openItems(today: string): { cells: string[]; late: number; cents: number }[] {
  const next = seeded(15)
  const dayAgo = (days: number) =>
    new Date(Date.parse(today) - days * 86_400_000).toISOString().slice(0, 10)
  return Array.from({ length: ITEMS }, (_, i) => {
    const late = Math.floor(next() * 150) - 30
    const cents = 500 + Math.floor(next() * 200_000)
    const open = (cents / 100).toFixed(2)
    const payer = `Open Item ${String(i % PAYERS).padStart(4, '0')}`
    const days = [dayAgo(late + 30 > 0 ? late + 30 : 0), dayAgo(late)]
    return { late, cents, cells: [`B-${i}`, payer, ...days, open] }
  })
}
/** Sends all of them, piece by piece, as the screen does; the sums must then be the file's, here and in hledger. */
async function openingImport(rig: Rig): Promise<void> {
  const cookie = await cookieOf(rig, 'books@demo.test')
  const ask = async (path: string, body?: object) => {
    const reply = await fetch(`${rig.env.TEST_URL}/api/v1/${path}`, {
      method: body ? 'POST' : 'GET',
      headers: { cookie, 'Content-Type': 'application/json' },
      body: body ? JSON.stringify(body) : null,
    })
    if (!reply.ok) throw new Error(`${path}: ${reply.status} ${await reply.text()}`)
    return reply
  }
  const unpaid = async () => (await (await ask('unpaid')).json()) as Answer<'unpaid'>
  const before = await unpaid()
  const items = openItems(before.on)
  const columns = ['number', 'customer', 'issued', 'due', 'open']
  const rows = items.map(({ cells }, i) => ({ at: i + 2, cells }))
  const importId = v7()
  const took = await seconds(() =>
    inPieces(rows, PIECE, (some) =>
      ask(`brought-forward/${importId}`, {
        ...{ fileName: 'open.csv', dry: false, on: before.on, columns, rows: some },
      }),
    ),
  )
  const after = await unpaid()
  const grew = (bucket: Bucket) =>
    Math.round((Number(after.totals[bucket].amount) - Number(before.totals[bucket].amount)) * 100)
  for (const bucket of BUCKETS) {
    const inFile = items.filter(({ late }) => bucketOf(late) === bucket)
    const sum = inFile.reduce((all, { cents }) => all + cents, 0)
    if (grew(bucket) !== sum) throw new Error(`${bucket}: ${grew(bucket)} for ${sum}`)
  }
  if (!after.agrees) throw new Error('the ageing does not agree with the books')
  const journal = await (await ask('export/journal.ledger')).text()
  const { stdout } = spawnSync('hledger', ['-f', '-', 'bal', '--flat', '-N', 'Assets:Receivable'], {
    ...{ encoding: 'utf8', input: journal, maxBuffer: 1e8 },
  })
  const theirs = Number(stdout.replace(/[^\d.]/g, ''))
  const ours = Number(after.totals.owed.amount) + Number(after.totals.credits.amount)
  if (Math.round((theirs - ours) * 100) !== 0) throw new Error(`hledger: ${theirs}, here ${ours}`)
  tell({
    name: 'opening-import',
    unit: 's',
    what: `${ITEMS} open invoices of ${PAYERS} customers taken over; the ageing is the file’s, and hledger agrees`,
    values: [took],
    reference: FEW_SECONDS,
  })
}
export const firstDayBenches: Record<string, Bench> = {
  'first-hour': { rig: false, run: firstHour },
  'opening-import': { rig: true, run: openingImport },
}
