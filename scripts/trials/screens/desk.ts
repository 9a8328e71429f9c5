// A window of somebody: a browser of their own, on a line that is slow, late or cut, and what it asked for, said and complained about.
import { randomUUID } from 'node:crypto'
import type { Browser, BrowserContext, Page, Request, Route } from '@playwright/test'
import type { Chance } from '../tools'

export interface Write {
  method: string
  path: string
  body: string
  key: string
  status: number
  /** what the topmost dialog was about when it was sent */
  title: string
}
export interface Desk {
  who: string
  page: Page
  context: BrowserContext
  writes: Write[]
  /** what nobody may see: errors of the page, refusals of what the screen offered */
  complaints: string[]
  /** how the line is at present */
  line: { isQuiet: boolean }
  /** what was asked for and is not answered yet */
  pending: Set<Request>
  /** somebody was asked whether the window may go, and said yes */
  wentAnyway: () => void
}
export const ROLES = ['owner', 'office', 'dispatch', 'books', 'ines'] as const
export type Who = (typeof ROLES)[number]
const PHONE = { width: 390, height: 844 }
const LATE_MS = 900
/** What the line does to a request: nothing, most often. */
const LATE = 0.12
const LOST = 0.03
const AWAY = 0.01
/** What a screen must not have asked for: nobody typed it. */
const OWN_FAULTS = [400, 403, 405, 413, 500]

async function travel(route: Route, desk: Desk, chance: Chance): Promise<void> {
  const request = route.request()
  const writes = request.method() !== 'GET'
  if (desk.line.isQuiet || request.url().includes('/live')) return route.continue()
  if (chance.maybe(LATE)) await new Promise((done) => setTimeout(done, chance.random() * LATE_MS))
  if (writes && chance.maybe(LOST)) {
    // It arrives, and its answer does not.
    const answer = await route.fetch().catch(() => null)
    if (answer) note(desk, request, answer.status(), '')
    return route.abort('connectionreset')
  }
  if (chance.maybe(AWAY))
    return route.fulfill({
      status: 503,
      contentType: 'application/problem+json',
      body: JSON.stringify({
        status: 503,
        code: 'database_away',
        detail: 'Try again in a moment.',
      }),
    })
  return route.continue()
}
function note(desk: Desk, request: Request, status: number, title: string): void {
  desk.writes.push({
    method: request.method(),
    path: new URL(request.url()).pathname.replace('/api/v1', ''),
    body: request.postData() ?? '',
    key: request.headers()['idempotency-key'] ?? '',
    status,
    title,
  })
}
const titleNow = (page: Page): Promise<string> =>
  page
    .evaluate(() => [...document.querySelectorAll('.el-dialog__title')].at(-1)?.textContent ?? '')
    .catch(() => '')

/** Notes what it asks for, and what it complains about. */
function listen(desk: Desk): void {
  const { page } = desk
  page.on('dialog', (dialog) => {
    desk.wentAnyway()
    void dialog.accept().catch(() => {})
  })
  page.on('request', (request) => request.url().includes('/live') || desk.pending.add(request))
  page.on('requestfinished', (request) => desk.pending.delete(request))
  page.on('requestfailed', (request) => desk.pending.delete(request))
  page.on('pageerror', (error) => {
    // A window of the browser itself, where no page could be had, lets nobody store anything.
    if (!error.message.includes('Access is denied for this document'))
      desk.complaints.push(`error: ${error.message}`)
  })
  page.on('console', (m) => {
    // A refusal is said by the browser, too; what it means is looked at below.
    if (
      m.type() === 'error' &&
      !/Failed to load resource|Failed to fetch|EventSource|ERR_/.test(m.text())
    )
      desk.complaints.push(`console: ${m.text().slice(0, 200)} (${m.location().url})`)
  })
  page.on('response', (answer) => {
    const { pathname } = new URL(answer.url())
    if (!pathname.startsWith('/api/v1/')) return
    const request = answer.request()
    if (OWN_FAULTS.includes(answer.status()))
      desk.complaints.push(`${answer.status()} ${request.method()} ${pathname}`)
    if (request.method() !== 'GET')
      void titleNow(page).then((title) => note(desk, request, answer.status(), title))
  })
}
/** Signed in, with nothing that an earlier window of theirs left. */
export async function openDesk(
  browser: Browser,
  base: string,
  who: Who,
  chance: Chance,
): Promise<Desk> {
  const isPhone = who === 'ines'
  const context = await browser.newContext({
    baseURL: base,
    ...(isPhone ? { viewport: PHONE, hasTouch: true } : { viewport: { width: 1280, height: 800 } }),
    locale: 'en-US',
    timezoneId: 'America/New_York',
    reducedMotion: 'reduce',
    serviceWorkers: 'block',
  })
  const signedIn = await context.request.post('/api/v1/session', {
    data: { email: `${who}@demo.test`, password: 'open-ledger' },
    headers: { 'Idempotency-Key': randomUUID() },
  })
  if (!signedIn.ok()) throw new Error(`${who} could not sign in: ${signedIn.status()}`)
  await context.addInitScript(() => {
    localStorage.setItem('signed-in', '1')
    window.print = () => {}
  })
  const page = await context.newPage()
  const desk: Desk = {
    who,
    page,
    context,
    writes: [],
    complaints: [],
    line: { isQuiet: false },
    pending: new Set(),
    wentAnyway: () => {},
  }
  listen(desk)
  await context.route('**/api/v1/**', (route) =>
    travel(route, desk, chance).catch(() => {
      /* the page was left meanwhile */
    }),
  )
  await page.goto(isPhone ? '/field' : '/')
  return desk
}
