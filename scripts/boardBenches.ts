// Benchmarks of the schedule on the screen: a frame while a visit is dragged, and how soon others see an act.
import { chromium, type Browser, type Page } from '@playwright/test'
import mysql from 'mysql2/promise'
import { v7 } from 'uuid'
import { seeded } from '../core/random/seeded'
import { cookieOf, inPieces, tell, type Bench, type Rig } from './lib/tell'

const DATE = '2026-11-25'
const open = () =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
  })
/** A day of that many technicians and visits, besides what the demo has. */
async function crowd(rig: Rig, technicians: number, visits: number): Promise<void> {
  const db = await mysql.createConnection({ uri: rig.env.DATABASE_URL! })
  const random = seeded(21)
  const [sites] = (await db.query(
    'SELECT id, customer_id AS customerId FROM sites WHERE lat IS NOT NULL LIMIT 200',
  )) as unknown as [{ id: string; customerId: string }[]]
  const week = JSON.stringify(
    Object.fromEntries(
      [1, 2, 3, 4, 5].map((d) => [d, { from: '08:00', to: '17:00', morning: 3, afternoon: 3 }]),
    ),
  )
  await db.query('UPDATE people SET bookable = FALSE')
  const people = Array.from({ length: technicians }, () => v7())
  await db.query(
    `INSERT INTO people (id, email, name, role, bookable, skills, hours, territory_ids, lat, lon,
      password_hash)
    VALUES ?`,
    [
      people.map((id, i) => [
        id,
        `bench${i}@demo.test`,
        `Technician ${i}`,
        'technician',
        1,
        '[]',
        week,
        '[]',
        42.64 + random() * 0.24,
        -75.25 + random() * 0.2,
        'x',
      ]),
    ],
  )
  const made = Array.from({ length: visits }, (_, i) => ({
    work: v7(),
    visit: v7(),
    person: people[i % technicians]!,
    slot: Math.floor(i / technicians),
    site: sites[i % sites.length]!,
  }))
  await inPieces(made, 500, (some) =>
    db.query(
      `INSERT INTO work_orders (id, number, customer_id, site_id, title, problem, contact, currency,
        state, created_at)
      VALUES ?`,
      [
        some.map((m, i) => [
          m.work,
          `B-${m.slot}-${i}`,
          m.site.customerId,
          m.site.id,
          'Bench',
          'Bench',
          '{}',
          'USD',
          'scheduled',
          '2026-11-20',
        ]),
      ],
    ),
  )
  await inPieces(made, 500, (some) =>
    db.query(
      `INSERT INTO visits (id, work_order_id, technician_id, start_at, duration_seconds,
        promise_date, promise_from, promise_to, findings)
      VALUES ?`,
      [
        some.map((m) => [
          m.visit,
          m.work,
          m.person,
          `${DATE} ${String(13 + Math.floor(m.slot * 1.4)).padStart(2, '0')}:15:00`,
          3600,
          DATE,
          '08:00',
          '17:00',
          '',
        ]),
      ],
    ),
  )
  await db.end()
}
async function board(browser: Browser, rig: Rig): Promise<Page> {
  const page = await (
    await browser.newContext({
      viewport: { width: 1280, height: 800 },
      timezoneId: 'America/New_York',
    })
  ).newPage()
  await page.goto(`${rig.env.TEST_URL}/sign-in`)
  await page.getByLabel('Mail address').fill('dispatch@demo.test')
  await page.getByLabel('Password').fill('open-ledger')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.waitForURL((u) => !u.pathname.includes('sign-in'))
  await page.goto(`${rig.env.TEST_URL}/schedule?date=${DATE}`)
  await page.locator('.lane [data-visit]').first().waitFor()
  return page
}
/** A visit is made longer or shorter at `base`, time and again: how long until each of the pages shows it. Two rounds are for warming up. */
async function untilSeen(
  base: string,
  cookie: string,
  pages: Page[],
  rounds: number,
): Promise<number[]> {
  const day = async () =>
    (await (
      await fetch(`${base}/api/v1/schedule?date=${DATE}`, { headers: { cookie } })
    ).json()) as {
      visits: {
        id: string
        version: number
        technicianId: string
        startAt: string
        durationSeconds: number
      }[]
    }
  const times: number[] = []
  for (let n = 0; n < rounds + 2; n++) {
    const visit = (await day()).visits[0]!
    const seen = pages.map((page) =>
      page.evaluate(
        (id) =>
          new Promise<number>((done) => {
            // No functions with names in here: the compiler would mark them with a helper that the page does not have.
            const before = document
              .querySelector(`.lane [data-visit="${id}"]`)
              ?.getAttribute('style')
            const watch = new MutationObserver(() => {
              if (
                document.querySelector(`.lane [data-visit="${id}"]`)?.getAttribute('style') ===
                before
              )
                return
              watch.disconnect()
              done(Date.now())
            })
            watch.observe(document.body, { subtree: true, childList: true, attributes: true })
          }),
        visit.id,
      ),
    )
    // The watchers stand before anything happens.
    await Promise.all(pages.map((p) => p.evaluate(() => 0)))
    const from = Date.now()
    const reply = await fetch(`${base}/api/v1/visits/${visit.id}/place`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', cookie },
      body: JSON.stringify({
        version: visit.version,
        technicianId: visit.technicianId,
        startAt: visit.startAt,
        durationSeconds: visit.durationSeconds + (n % 2 ? -900 : 900),
        override: true,
      }),
    })
    if (!reply.ok) throw new Error(await reply.text())
    const at = await Promise.all(seen)
    if (n >= 2) times.push(...at.map((t) => t - from))
  }
  return times
}
export const boardBenches: Record<string, Bench> = {
  'board-frame': {
    rig: true,
    async run(rig) {
      await crowd(rig, 40, 240)
      const browser = await open()
      const page = await board(browser, rig)
      const card = page.locator('.lane [data-visit]').nth(2)
      const box = (await card.boundingBox())!
      // What a frame takes: handling the moves that came since the one before, then drawing. Waiting for the screen's next turn is no work.
      await page.evaluate(() => {
        const frames: number[] = []
        Object.assign(window, { frames })
        const [handled, drawn] = [new MessageChannel(), new MessageChannel()]
        const now = { moved: 0, work: 0, drawing: 0 }
        handled.port1.onmessage = () => {
          if (now.moved && !now.drawing) now.work += performance.now() - now.moved
          now.moved = 0
        }
        drawn.port1.onmessage = () => {
          // Where the move came with its frame, nothing lay between.
          frames.push(now.work + performance.now() - (now.moved || now.drawing))
          Object.assign(now, { moved: 0, work: 0, drawing: 0 })
        }
        window.addEventListener(
          'pointermove',
          () => {
            if (now.drawing || now.moved) return
            const first = now.work === 0
            now.moved = performance.now()
            handled.port2.postMessage(0)
            if (first) {
              requestAnimationFrame(() => {
                now.drawing = performance.now()
                drawn.port2.postMessage(0)
              })
            }
          },
          { capture: true },
        )
      })
      await page.mouse.move(box.x + 20, box.y + 10)
      await page.mouse.down()
      for (let i = 0; i < 260; i++)
        await page.mouse.move(box.x + 20 + Math.sin(i / 20) * 300, box.y + 10 + (i % 130) * 3)
      await page.keyboard.press('Escape')
      const frames = (
        await page.evaluate(() => (window as unknown as { frames: number[] }).frames)
      ).slice(10)
      await browser.close()
      tell({
        name: 'board-frame',
        unit: 'ms',
        what: `a frame while a visit is dragged, 40 technicians and 240 visits, ${frames.length} frames in Chromium without a GPU`,
        values: frames,
        reference: 16.7,
      })
    },
  },
  'two-processes': {
    rig: true,
    processes: 2,
    async run(rig) {
      const browser = await open()
      const [here, there] = [rig.apps![0]!, rig.apps![1]!]
      const page = await board(browser, { ...rig, env: { ...rig.env, TEST_URL: there } })
      const times = await untilSeen(here, await cookieOf(rig, 'owner@demo.test'), [page], 40)
      await browser.close()
      tell({
        name: 'two-processes',
        unit: 'ms',
        what: 'from an act on one process to a screen that asks the other, both on one database',
        values: times,
        reference: 600,
      })
    },
  },
  live: {
    rig: true,
    async run(rig) {
      const browser = await open()
      const pages: Page[] = []
      for (let i = 0; i < 20; i++) pages.push(await board(browser, rig))
      const times = await untilSeen(
        rig.env.TEST_URL!,
        await cookieOf(rig, 'owner@demo.test'),
        pages,
        10,
      )
      await browser.close()
      tell({
        name: 'live',
        unit: 'ms',
        what: 'from one’s act to the screens of 20 signed-in browsers, all on this machine',
        values: times,
        reference: 500,
      })
    },
  },
}
