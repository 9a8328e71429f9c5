// npm run bench [-- NAME…]: one JSON line each, on a throw-away copy of the app.
import { spawnSync } from 'node:child_process'
import { chromium } from '@playwright/test'
import mysql from 'mysql2/promise'
import { v7 } from 'uuid'
import { quantile } from '../core/collections/paymentHabit'
import { documentTotals } from '../core/documents/documentTotals'
import { searchKey } from '../core/text/searchKey'
import { population, questions, type Inhabitant } from '../demo/population'
import { startRig, startServer } from './lib/rig.mjs'
import { cookieOf, inPieces, round, seconds, tell, type Bench, type Rig } from './lib/tell'
import { boardBenches } from './boardBenches'
import { fieldBenches } from './fieldBenches'
import { firstDayBenches } from './firstDayBenches'
import { priceBenches } from './priceBenches'
import { runBenches } from './runBenches'
import { scheduleBenches } from './scheduleBenches'

const wanted = process.argv.slice(2)
async function insertPeople(db: mysql.Connection, people: Inhabitant[]): Promise<string[]> {
  const ids = people.map(() => v7())
  const all = people.map((p, i) => ({ ...p, id: ids[i]!, site: v7() }))
  await inPieces(all, 2000, async (some) => {
    await db.query(
      `INSERT INTO customers (id, name, phone, email, line1, town, postcode, office_note, search,
        created_at)
      VALUES ?`,
      [
        some.map((p) => [
          p.id,
          p.name,
          p.phone,
          p.email,
          p.line1,
          p.town,
          p.postcode,
          '',
          searchKey(`${p.name} ${p.line1} ${p.town}`),
          '2024-01-01',
        ]),
      ],
    )
    await db.query('INSERT INTO sites (id, customer_id, line1, town, postcode, search) VALUES ?', [
      some.map((p) => [
        p.site,
        p.id,
        p.line1,
        p.town,
        p.postcode,
        searchKey(`${p.line1} ${p.town}`),
      ]),
    ])
    await db.query('INSERT INTO contacts (id, customer_id, name, search) VALUES ?', [
      some.map((p) => [v7(), p.id, p.contact, '']),
    ])
    await db.query('INSERT INTO equipment (id, site_id, category, serial) VALUES ?', [
      some.map((p) => [v7(), p.site, 'pump', p.serial]),
    ])
  })
  return ids
}
/** A hundred thousand invoices over the years, one to each customer in turn. */
async function insertInvoices(db: mysql.Connection, customerIds: readonly string[]): Promise<void> {
  const invoices = Array.from({ length: 100_000 }, (_, n) => {
    const on = new Date(Date.UTC(2024, 0, 1 + (n % 900))).toISOString().slice(0, 10)
    const customerId = customerIds[n % customerIds.length]!
    const sums = [10_000, 0, 10_000, 10_000]
    return [v7(), `X-${n}`, customerId, on, on, 'USD', ...sums, '{}', '2024-01-01 00:00:00']
  })
  await inPieces(invoices, 2000, (some) =>
    db.query(
      `INSERT INTO invoices (id, number, customer_id, issue_on, due_on, currency, net_minor,
        tax_minor, total_minor, payable_minor, frozen, created_at)
      VALUES ?`,
      [some],
    ),
  )
}
/** Pages of a list over HTTP from one end on, each against the same page by hand. */
async function listPages(
  rig: Rig,
  db: mysql.Connection,
  { path, count = path }: { path: string; count?: string },
  page: (first: Record<string, string>) => [string, string[]],
): Promise<void> {
  const cookie = await cookieOf(rig, 'books@demo.test')
  const api: number[] = []
  const bare: number[] = []
  let after = ''
  for (let i = 0; i < 220; i++) {
    const from = performance.now()
    const got = (await (
      await fetch(`${rig.env.TEST_URL}/api/v1/${path}?limit=50${after ? `&after=${after}` : ''}`, {
        headers: { cookie },
      })
    ).json()) as { next: string | null; items: Record<string, string>[] }
    if (i >= 20) api.push(performance.now() - from)
    const start = performance.now()
    await db.query(`SELECT COUNT(*) FROM ${count}`)
    await db.query(...page(got.items[0]!))
    if (i >= 20) bare.push(performance.now() - start)
    after = got.next ?? ''
  }
  tell({
    name: 'api-list',
    unit: 'ms',
    what: `a page of 50 of 100 000 ${path} over HTTP, against its bare SQL with the count`,
    values: api,
    reference: quantile(
      bare.sort((a, b) => a - b),
      0.95,
    ),
  })
}

/** Benchmarks by name; those with a rig get a fresh copy of the app each. */
const BENCHES: Record<string, Bench> = {
  ...boardBenches,
  ...scheduleBenches,
  ...fieldBenches,
  ...firstDayBenches,
  ...priceBenches,
  ...runBenches,
  'price-lines': {
    rig: false,
    async run() {
      const lines = Array.from({ length: 8 }, (_, i) => ({
        quantity: String(i + 1),
        unitPrice: `${20 + i}.35`,
        taxes: [{ code: 'state', name: 'State', rate: '0.04' }],
      }))
      const perSecond = Array.from({ length: 5 }, () => {
        const from = performance.now()
        for (let i = 0; i < 4000; i++) documentTotals(lines, { mode: 'added', currency: 'USD' })
        return 4000 / ((performance.now() - from) / 1000)
      })
      tell({
        name: 'price-lines',
        unit: 'documents/s',
        what: 'totals of documents with 8 lines and tax',
        values: perSecond,
      })
    },
  },
  'cold-start': {
    rig: true,
    async run(rig) {
      const times: number[] = []
      for (let i = 0; i < 5; i++) {
        const port = String(20_000 + i * 7 + (Math.floor(performance.now()) % 5000))
        const from = performance.now()
        const app = await startServer({ ...rig.env, PORT: port, NITRO_PORT: port })
        times.push((performance.now() - from) / 1000)
        app.kill('SIGTERM')
      }
      tell({
        name: 'cold-start',
        unit: 's',
        what: 'from starting the app to its first answer from the database, built and warm',
        values: times,
      })
    },
  },
  'first-load-js': {
    rig: true,
    async run(rig) {
      const browser = await chromium.launch({
        executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
        args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
      })
      const page = await browser.newPage()
      await page.goto(`${rig.env.TEST_URL}/sign-in`)
      await page.getByLabel('Mail address').fill('dispatch@demo.test')
      await page.getByLabel('Password').fill('open-ledger')
      await page.getByRole('button', { name: 'Sign in' }).click()
      await page.getByText('Ines Calloway').waitFor()
      // Loaded anew: what crosses the line is what the server compressed.
      await page.reload()
      await page.getByText('Ines Calloway').waitFor()
      const sizes = await page.evaluate(() =>
        // What was fetched ahead of its use is listed a second time when it is used.
        [
          ...new Map(
            (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
              .filter((e) => new URL(e.name).pathname.endsWith('.js'))
              .map((e) => [e.name, e.encodedBodySize / 1000]),
          ).values(),
        ],
      )
      tell({
        name: 'first-load-js',
        unit: 'kB gzip',
        what: `${sizes.length} scripts until the schedule is usable`,
        values: [sizes.reduce((a, b) => a + b, 0)],
        reference: 400,
      })
      await browser.close()
    },
  },
  'api-list': {
    rig: true,
    async run(rig) {
      const db = await mysql.createConnection({ uri: rig.env.DATABASE_URL! })
      const [customers] = (await db.query('SELECT id FROM customers')) as unknown as [
        { id: string }[],
      ]
      await insertInvoices(
        db,
        customers.map((c) => c.id),
      )
      await insertPeople(db, population(100_000))
      for (const table of ['invoices', 'customers', 'sites'])
        await db.query(`ANALYZE TABLE ${table}`)
      await listPages(rig, db, { path: 'invoices' }, (first) => [
        `SELECT i.id, i.number, c.name, i.issue_on, i.due_on, i.total_minor, i.open_minor, w.number
        FROM invoices i
        STRAIGHT_JOIN customers c ON c.id = i.customer_id
        LEFT JOIN work_orders w ON w.id = i.work_order_id
        WHERE i.issue_on <= ? AND (i.issue_on < ? OR i.id <= ?)
        ORDER BY i.issue_on DESC, i.id DESC LIMIT 51`,
        [first.issueOn!, first.issueOn!, first.id!],
      ])
      await listPages(
        rig,
        db,
        { path: 'customers', count: 'customers c WHERE c.merged_into IS NULL' },
        (first) => [
          `SELECT c.id, c.name, c.phone, c.email, c.town, c.tags,
            (SELECT COUNT(*) FROM sites s WHERE s.customer_id = c.id),
            (SELECT SUM(open_minor) FROM invoices i WHERE i.customer_id = c.id)
          FROM customers c
          WHERE c.merged_into IS NULL AND c.name >= ?
            AND (c.name > ? OR c.id >= ?)
          ORDER BY c.name, c.id LIMIT 51`,
          [first.name!, first.name!, first.id!],
        ],
      )
      await listPages(rig, db, { path: 'sites' }, (first) => [
        `SELECT s.id, s.line1, s.town, s.postcode, c.name,
          (SELECT COUNT(*) FROM equipment e WHERE e.site_id = s.id AND NOT e.removed)
        FROM sites s
        STRAIGHT_JOIN customers c ON c.id = s.customer_id
        WHERE s.line1 >= ? AND (s.line1 > ? OR s.id >= ?)
        ORDER BY s.line1, s.id LIMIT 51`,
        [first.line1!, first.line1!, first.id!],
      ])
      await db.end()
    },
  },
  queries: {
    rig: true,
    async run(rig) {
      const [rosa, owner] = [
        await cookieOf(rig, 'rosa@demo.test'),
        await cookieOf(rig, 'owner@demo.test'),
      ]
      const get = async (path: string, cookie: string) => {
        const reply = await fetch(`${rig.env.TEST_URL}/api/v1/${path}`, { headers: { cookie } })
        if (!reply.ok) throw new Error(`${path}: ${reply.status}`)
        return reply.json() as Promise<{ items: { id: string; customerId: string }[] }>
      }
      const [work] = (await get('work-orders?limit=1', owner)).items
      const [customer] = (await get('customers?limit=1', owner)).items
      for (const [what, path] of [
        ['a work order', `work-orders/${work!.id}`],
        ['a customer', `customers/${customer!.id}`],
        ['what is unpaid', 'unpaid'],
      ] as const) {
        const times: number[] = []
        for (let i = 0; i < 60; i++) times.push((await seconds(() => get(path, owner))) * 1000)
        tell({
          name: 'queries',
          unit: 'ms',
          what: `${what} over HTTP, one after the other`,
          values: times.slice(10),
        })
      }
      // Twenty phones that each ask again as soon as they are answered, for a thousand answers at a time.
      const perSecond: number[] = []
      for (let round = 0; round < 8; round++) {
        const took = await seconds(() =>
          Promise.all(
            Array.from({ length: 20 }, async () => {
              for (let i = 0; i < 50; i++) await get('field/day', rosa)
            }),
          ),
        )
        // A process that has just begun is slow for some thousands of answers.
        if (round > 2) perSecond.push(1000 / took)
      }
      tell({
        name: 'queries',
        unit: 'requests/s',
        what: 'the field day, asked over 20 connections from this same machine',
        values: perSecond,
        reference: 250,
        ofMedian: true,
      })
    },
  },
  match: {
    rig: true,
    async run(rig) {
      const db = await mysql.createConnection({ uri: rig.env.DATABASE_URL! })
      const people = population(50_000)
      const ids = await insertPeople(db, people)
      await db.end()
      // Another process beside the rig's: its index is built from what is there now.
      const port = String(26_000 + (Math.floor(performance.now()) % 4000))
      const app = await startServer({ ...rig.env, PORT: port, NITRO_PORT: port })
      const cookie = await cookieOf(rig, 'office@demo.test')
      const ask = async (q: string) =>
        (
          (await (
            await fetch(`http://127.0.0.1:${port}/api/v1/matches?q=${encodeURIComponent(q)}`, {
              headers: { cookie },
            })
          ).json()) as { items: { customerId: string }[] }
        ).items
      const first = await seconds(() => ask('hallam'))
      tell({
        name: 'match-index',
        unit: 's',
        what: 'the first question right after a start: it waits until the index of 50 000 customers is built',
        values: [first],
      })
      const times: number[] = []
      const missed: string[] = []
      for (const { q, meant } of questions(people, 300)) {
        const from = performance.now()
        const items = await ask(q)
        times.push(performance.now() - from)
        if (!items.slice(0, 3).some((i) => i.customerId === ids[meant])) missed.push(q)
      }
      tell({
        name: 'match',
        unit: 'ms',
        what: `300 questions over HTTP, 50 000 customers with sites, contacts and equipment; the one meant was in the first three for ${round(100 - missed.length / 3)} %${missed.length ? `, not for: ${missed.slice(0, 6).join(' | ')}` : ''}`,
        values: times,
        reference: 60,
      })
      app.kill('SIGTERM')
    },
  },
  'import-customers': {
    rig: true,
    async run(rig) {
      const cookie = await cookieOf(rig, 'office@demo.test')
      const rows = population(20_000, 21).map((p) => [
        p.name,
        p.phone,
        p.email,
        p.line1,
        p.town,
        p.postcode,
      ])
      const id = v7()
      let first = 2
      let added = 0
      const steps: number[] = []
      const total = await seconds(() =>
        inPieces(rows, 500, async (piece) => {
          steps.push(
            await seconds(async () => {
              const reply = await fetch(`${rig.env.TEST_URL}/api/v1/imports/${id}`, {
                method: 'POST',
                headers: { 'Content-Type': 'application/json', cookie, 'Idempotency-Key': v7() },
                body: JSON.stringify({
                  fileName: 'bench.csv',
                  dry: false,
                  skipDuplicates: true,
                  columns: [
                    'name',
                    'phone',
                    'email',
                    'billing_address',
                    'billing_town',
                    'billing_postcode',
                  ],
                  rows: piece,
                  first,
                }),
              })
              const answer = (await reply.json()) as { added: number; detail?: string }
              if (!reply.ok) throw new Error(answer.detail)
              added += answer.added
            }),
          )
          first += 500
        }),
      )
      tell({
        name: 'import-customers',
        unit: 's',
        what: `20 000 rows in ${steps.length} pieces, each of which moves the progress (longest ${round(Math.max(...steps))} s); ${added} taken in`,
        values: [total],
        reference: 20,
      })
    },
  },
  // What goes wrong under rough hands, on every screen; its own copy of the app.
  screens: {
    rig: false,
    async run() {
      const { stdout } = spawnSync(
        process.execPath,
        ['--import', 'tsx', 'scripts/trial.ts', 'screens', '--minutes', '10'],
        { encoding: 'utf8' },
      )
      const trial = JSON.parse(stdout.trim().split('\n').at(-1)!) as {
        acts: number
        faults: number
      }
      tell({
        name: 'screens',
        unit: 'faults',
        what: `ten minutes of rough hands, ${trial.acts} acts`,
        values: [trial.faults],
      })
    },
  },
  'call-keys': {
    rig: true,
    async run(rig) {
      const { stdout } = spawnSync(
        'npx',
        [
          'playwright',
          'test',
          'tests/e2e/04-calls.spec.ts',
          '-g',
          'by keyboard alone',
          '--reporter=list',
        ],
        { encoding: 'utf8', env: { ...process.env, ...rig.env } },
      )
      const count = /call-keys (\d+)/.exec(stdout)
      if (!count) throw new Error(`the keyboard test did not run: ${stdout.slice(-400)}`)
      tell({
        name: 'call-keys',
        unit: 'keys',
        what: 'from N to booked for a known customer, a chord counted as one',
        values: [Number(count[1])],
        reference: 25,
      })
    },
  },
}
const unknown = wanted.filter((name) => !BENCHES[name])
if (unknown.length) {
  process.stderr.write(
    `There is no benchmark ${unknown.join(', ')}. There are: ${Object.keys(BENCHES).join(', ')}\n`,
  )
  process.exit(2)
}
for (const [name, bench] of Object.entries(BENCHES)) {
  if (wanted.length && !wanted.includes(name)) continue
  const rig = bench.rig
    ? ((await startRig(`bench-${name}`, { processes: bench.processes ?? 1 })) as Rig)
    : null
  try {
    await bench.run(rig!)
  } catch (error) {
    // The others are measured all the same; what fails is said, and the whole fails at its end.
    process.stderr.write(`${name} failed: ${String(error).slice(0, 600)}\n`)
    process.exitCode = 1
  } finally {
    await rig?.stop()
  }
}
