// npm run bench [-- NAME…]: one JSON line each, on a throw-away copy of the app.
import { chromium } from '@playwright/test'
import mysql from 'mysql2/promise'
import { v7 } from 'uuid'
import { documentTotals } from '../core/documents/documentTotals'
import { quantile } from '../core/collections/paymentHabit'
// @ts-expect-error a plain module of the commands
import { startRig, startServer } from './lib/rig.mjs'

interface Result { name: string, unit: string, n: number, median: number, p95: number, reference: number | null, ratio: number | null, what: string }
const wanted = process.argv.slice(2)
const runs = (name: string) => wanted.length === 0 || wanted.includes(name)
const round = (x: number) => Math.round(x * 1000) / 1000
function tell(name: string, unit: string, what: string, values: number[], reference: number | null = null): void {
  const sorted = [...values].sort((a, b) => a - b)
  const p95 = quantile(sorted, 0.95)
  process.stdout.write(`${JSON.stringify({ name, unit, n: values.length, median: round(quantile(sorted, 0.5)), p95: round(p95), reference: reference === null ? null : round(reference), ratio: reference ? round(p95 / reference) : null, what } satisfies Result)}\n`)
}
if (runs('price-lines')) {
  const lines = Array.from({ length: 8 }, (_, i) => ({ quantity: String(i + 1), unitPrice: `${20 + i}.35`, taxes: [{ code: 'state', name: 'State', rate: '0.04' }] }))
  const perSecond = Array.from({ length: 5 }, () => {
    const from = performance.now()
    for (let i = 0; i < 4000; i++) documentTotals(lines, { mode: 'added', currency: 'USD' })
    return 4000 / ((performance.now() - from) / 1000)
  })
  tell('price-lines', 'documents/s', 'totals of documents with 8 lines and tax', perSecond)
}
if (['cold-start', 'first-load-js', 'api-list'].some(runs)) {
  const rig = await startRig('bench') as { env: Record<string, string>, stop(): Promise<void> }
  try {
    if (runs('cold-start')) {
      const times: number[] = []
      for (let i = 0; i < 5; i++) {
        const port = String(20_000 + i * 7 + Math.floor(performance.now()) % 5000)
        const from = performance.now()
        const app = await startServer({ ...rig.env, PORT: port, NITRO_PORT: port })
        times.push((performance.now() - from) / 1000)
        app.kill('SIGTERM')
      }
      tell('cold-start', 's', 'from starting the app to its first answer from the database, built and warm', times)
    }
    if (runs('first-load-js')) {
      const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'] })
      const page = await browser.newPage()
      await page.goto(`${rig.env.TEST_URL}/sign-in`)
      await page.getByLabel('Mail address').fill('dispatch@demo.test')
      await page.getByLabel('Password').fill('open-ledger')
      await page.getByRole('button', { name: 'Sign in' }).click()
      await page.getByText('Ines Calloway').waitFor()
      // Loaded anew: what crosses the line is what the server compressed.
      await page.reload()
      await page.getByText('Ines Calloway').waitFor()
      const sizes = await page.evaluate(() => (performance.getEntriesByType('resource') as PerformanceResourceTiming[]).filter(e => new URL(e.name).pathname.endsWith('.js')).map(e => e.encodedBodySize / 1000))
      tell('first-load-js', 'kB gzip', `${sizes.length} scripts until the schedule is usable`, [sizes.reduce((a, b) => a + b, 0)], 400)
      await browser.close()
    }
    if (runs('api-list')) {
      const db = await mysql.createConnection({ uri: rig.env.DATABASE_URL! })
      const [customers] = await db.query('SELECT id FROM customers') as unknown as [{ id: string }[]]
      for (let i = 0; i < 100_000; i += 2000) {
        await db.query('INSERT INTO invoices (id, number, customer_id, issue_on, due_on, currency, net_minor, tax_minor, total_minor, payable_minor, frozen, created_at) VALUES ?', [Array.from({ length: 2000 }, (_, j) => {
          const n = i + j
          const on = new Date(Date.UTC(2024, 0, 1 + n % 900)).toISOString().slice(0, 10)
          return [v7(), `X-${n}`, customers[n % customers.length]!.id, on, on, 'USD', 10_000, 0, 10_000, 10_000, '{}', '2024-01-01 00:00:00']
        })])
      }
      await db.query('ANALYZE TABLE invoices')
      const signIn = await fetch(`${rig.env.TEST_URL}/api/v1/session`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ email: 'books@demo.test', password: 'open-ledger' }) })
      const cookie = signIn.headers.get('set-cookie')!.split(';')[0]!
      const api: number[] = []
      const bare: number[] = []
      let after = ''
      for (let i = 0; i < 220; i++) {
        const from = performance.now()
        const page = await (await fetch(`${rig.env.TEST_URL}/api/v1/invoices?limit=50${after ? `&after=${after}` : ''}`, { headers: { cookie } })).json() as { next: string | null, items: { id: string, issueOn: string }[] }
        if (i >= 20) api.push(performance.now() - from)
        // The same page by hand, from the same place on.
        const first = page.items[0]!
        const start = performance.now()
        await db.query('SELECT COUNT(*) FROM invoices')
        await db.query(`SELECT i.id, i.number, c.name, i.issue_on, i.due_on, i.total_minor, i.open_minor, w.number FROM invoices i STRAIGHT_JOIN customers c ON c.id = i.customer_id LEFT JOIN work_orders w ON w.id = i.work_order_id
          WHERE i.issue_on <= ? AND (i.issue_on < ? OR i.id <= ?) ORDER BY i.issue_on DESC, i.id DESC LIMIT 51`, [first.issueOn, first.issueOn, first.id])
        if (i >= 20) bare.push(performance.now() - start)
        after = page.next ?? ''
      }
      tell('api-list', 'ms', 'a page of 50 of 100 000 invoices over HTTP, against its bare SQL with the count', api, quantile(bare.sort((a, b) => a - b), 0.95))
      await db.end()
    }
  }
  finally {
    await rig.stop()
  }
}
