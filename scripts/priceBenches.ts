// Benchmarks of a price book as large as a wholesaler's list: finding, taking lists in, repricing, scrolling.
import { readFileSync } from 'node:fs'
import { chromium, type Page } from '@playwright/test'
import { v7 } from 'uuid'
import { bigBook } from '../demo/bigBook'
import { cookieOf, inPieces, round, seconds, tell, type Bench, type Rig } from './lib/tell'

const SIZE = 20_000
const HEAD = [
  'code',
  'kind',
  'category',
  'name',
  'cost',
  'supplier',
  'part_number',
  'hours',
  'labour',
  'tax_class',
]
type Send = <T>(path: string, body?: object) => Promise<T>
async function sender(rig: Rig): Promise<Send> {
  const cookie = await cookieOf(rig, 'office@demo.test')
  return async <T>(path: string, body?: object) => {
    const reply = await fetch(
      `${rig.env.TEST_URL}/api/v1${path}`,
      body
        ? {
            method: 'POST',
            headers: { 'Content-Type': 'application/json', cookie, 'Idempotency-Key': v7() },
            body: JSON.stringify(body),
          }
        : { headers: { cookie } },
    )
    const answer = (await reply.json()) as T & { detail?: string }
    if (!reply.ok) throw new Error(answer.detail)
    return answer
  }
}
const OPTIONS = { taxClass: 'goods', category: '', fixed: 'keep', vanished: 'keep' }
/** Takes that many made-up entries in as a list, the way a person would: sent in pieces, looked at, taken. */
async function takeBook(
  send: Send,
  count: number,
): Promise<{ sent: number; looked: number; taken: number; moved: number }> {
  const rows = bigBook(count).map((e) => [
    e.code,
    e.kind,
    e.category,
    e.name,
    e.cost,
    e.supplier,
    e.partNumber,
    e.seconds ? String(e.seconds / 3600) : '',
    e.kind === 'task' ? 'L-STD' : '',
    e.kind === 'task' ? 'work' : 'goods',
  ])
  const id = v7()
  let row = 2
  const sent = await seconds(() =>
    inPieces(rows, 2000, async (piece) => {
      await send(`/price-imports/${id}/rows`, {
        supplier: '',
        head: HEAD,
        fileName: 'bench.csv',
        columns: HEAD,
        rows: piece.map((cells, i) => ({ row: row + i, cells })),
      })
      row += piece.length
    }),
  )
  let stamp = ''
  const looked = await seconds(async () => {
    const seen = await send<{ stamp: string; counts: { new: number; wrong: number } }>(
      `/price-imports/${id}/look`,
      OPTIONS,
    )
    if (seen.counts.new !== count)
      throw new Error(`${seen.counts.new} of ${count} rows are new, ${seen.counts.wrong} wrong`)
    stamp = seen.stamp
  })
  const steps = new Set<string>()
  let on = true
  const watching = (async () => {
    while (on) {
      const p = await send<{ what: string; done: number }>(`/price-imports/${id}/progress`)
      if (p.what) steps.add(`${p.what} ${p.done}`)
      await new Promise((go) => setTimeout(go, 50))
    }
  })()
  const taken = await seconds(() => send(`/price-imports/${id}/take`, { ...OPTIONS, stamp }))
  on = false
  await watching
  return { sent, looked, taken, moved: steps.size }
}
async function signedInPage(rig: Rig): Promise<{ page: Page; close: () => Promise<void> }> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
  })
  const page = await (
    await browser.newContext({
      viewport: { width: 1280, height: 800 },
      timezoneId: 'America/New_York',
    })
  ).newPage()
  await page.goto(`${rig.env.TEST_URL}/sign-in`)
  await page.getByLabel('Mail address').fill('office@demo.test')
  await page.getByLabel('Password').fill('open-ledger')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL((u) => !u.pathname.includes('sign-in'))
  return { page, close: () => browser.close() }
}
/** As many as there are in the demo are there already. */
const REST = SIZE - 1309
export const priceBenches: Record<string, Bench> = {
  'price-import': {
    rig: true,
    async run(rig) {
      const { sent, looked, taken, moved } = await takeBook(await sender(rig), SIZE)
      tell({
        name: 'price-import',
        unit: 's',
        what: `20 000 rows taken in for good, sending (${round(sent)} s) included; looking at them first took ${round(looked)} s; the progress was seen to move ${moved} times`,
        values: [sent + taken],
        reference: 15,
      })
    },
  },
  reprice: {
    rig: true,
    async run(rig) {
      const send = await sender(rig)
      await takeBook(send, REST)
      const times: number[] = []
      let changed = 0
      for (let i = 0; i < 6; i++) {
        const took = await seconds(async () => {
          const seen = await send<{ changed: number; follow: number }>('/price-changes/preview', {
            rule: 'cost_percent',
            percent: String(3 + i),
          })
          changed = seen.changed + seen.follow
        })
        if (i) times.push(took)
      }
      tell({
        name: 'reprice',
        unit: 's',
        what: `a rule over the whole book of ${SIZE} entries previewed, ${changed} of them changed`,
        values: times,
        reference: 2,
      })
    },
  },
  'price-search': {
    rig: true,
    async run(rig) {
      await takeBook(await sender(rig), REST)
      const { page, close } = await signedInPage(rig)
      const queries = JSON.parse(readFileSync('demo/priceQueries.json', 'utf8')) as [
        string,
        string,
      ][]
      await page.goto(`${rig.env.TEST_URL}/calls/new`)
      const box = page.getByLabel('Price to read out')
      await box.fill('tank')
      await page.locator('[data-found="tank"] li').first().waitFor({ timeout: 60_000 })
      const times: number[] = []
      const missed: string[] = []
      for (const [query, meant] of queries) {
        // All but the last key, then the last one: from there on the clock runs.
        await box.fill(query.slice(0, -1))
        await page.locator(`[data-found="${CSS(query.slice(0, -1).trim())}"]`).waitFor()
        const got = await page.evaluate(
          (words) =>
            new Promise<{ took: number; names: string[] }>((done) => {
              const input = document.querySelector<HTMLInputElement>('.search input')!
              const home = document.querySelector('.search')!
              const watch = new MutationObserver(() => {
                if (home.getAttribute('data-found') !== words.trim()) return
                watch.disconnect()
                done({
                  took: performance.now() - from,
                  names: [...home.querySelectorAll('li b')].slice(0, 5).map((b) => b.textContent),
                })
              })
              watch.observe(home, { attributes: true, subtree: true, childList: true })
              const from = performance.now()
              input.value = words
              input.dispatchEvent(new Event('input', { bubbles: true }))
            }),
          query,
        )
        times.push(got.took)
        if (!got.names.includes(meant)) missed.push(`${query} → ${meant}`)
      }
      await close()
      tell({
        name: 'price-search',
        unit: 'ms',
        what: `from the last key to the results on the screen, ${queries.length} recorded queries over ${SIZE} entries in Chromium; the one meant was in the first five for ${round(100 - (missed.length / queries.length) * 100)} %${missed.length ? `, not for: ${missed.slice(0, 5).join(' | ')}` : ''}`,
        values: times,
        reference: 30,
      })
    },
  },
  'book-scroll': {
    rig: true,
    async run(rig) {
      await takeBook(await sender(rig), REST)
      const { page, close } = await signedInPage(rig)
      await page.goto(`${rig.env.TEST_URL}/price-book`)
      await page.getByRole('grid').waitFor({ timeout: 60_000 })
      const { work, late } = await page.evaluate(
        () =>
          new Promise<{ work: number[]; late: number }>((done) => {
            const grid = document.querySelector<HTMLElement>('[role="grid"]')!
            const drawn = new MessageChannel()
            const work: number[] = []
            const turns: number[] = []
            let from = 0
            const next: (() => void)[] = []
            // The message is handled after the frame in which it was posted has been drawn: what lies between is the work of that frame, and
            // waiting for the screen's next turn, always a sixtieth of a second here, is not.
            drawn.port1.onmessage = () => {
              work.push(performance.now() - from)
              if (work.length < 320) return void requestAnimationFrame(next[0]!)
              const gaps = turns.slice(21).map((t, i) => t - turns[20 + i]!)
              done({ work: work.slice(20), late: gaps.filter((g) => g > 25).length })
            }
            // No functions with names in here: the compiler would mark them with a helper that the page does not have.
            next.push(() => {
              from = performance.now()
              turns.push(from)
              grid.scrollTop += work.length % 40 === 39 ? 40_000 : 170
              grid.dispatchEvent(new Event('scroll'))
              drawn.port2.postMessage(0)
            })
            requestAnimationFrame(next[0]!)
          }),
      )
      await close()
      tell({
        name: 'book-scroll',
        unit: 'ms',
        what: `the work of a frame while the grid of ${SIZE} rows is scrolled by five rows and now and then by 1250, in Chromium without a GPU; ${late} of 300 frames came a turn late`,
        values: work,
        reference: 16.7,
      })
    },
  },
}
const CSS = (text: string) => text.replace(/["\\]/g, '\\$&')
