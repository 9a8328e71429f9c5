// People at their screens: each with a browser of their own; nothing may be written to the console as an error.
import { spawnSync } from 'node:child_process'
import {
  expect,
  test,
  type Browser,
  type BrowserContext,
  type Locator,
  type Page,
} from '@playwright/test'

export type Person =
  'owner' | 'office' | 'dispatch' | 'books' | 'ines' | 'tobiah' | 'maud' | 'piet' | 'rosa'
export const PHONE = { width: 390, height: 844 }
const FIELD = new Set<Person>(['ines', 'tobiah', 'maud', 'piet', 'rosa'])
export const noise = new WeakMap<Page, string[]>()

/** Signed in already: the screen to sign in has tests of its own (02-steps). */
async function signIn(context: BrowserContext, who: Person) {
  const answer = await context.request.post('/api/v1/session', {
    data: { email: `${who}@demo.test`, password: 'open-ledger' },
    headers: { 'Idempotency-Key': crypto.randomUUID() },
  })
  expect(answer.status(), await answer.text()).toBe(200)
  // The app asks for a session only where somebody signed in before; once, so that signing out holds.
  await context.addInitScript(() => {
    if (!sessionStorage.getItem('sat down')) localStorage.setItem('signed-in', '1')
    sessionStorage.setItem('sat down', '1')
  })
}
const seated: BrowserContext[] = []
/** Everybody goes home: a browser left open goes on asking for live changes. */
const goHome = async () => void (await Promise.all(seated.splice(0).map((c) => c.close())))

/** Whatever a file of tests pressed: the books agree, and nothing is nowhere. */
function everythingStands(): void {
  for (const check of ['check-books', 'check-run']) {
    const script = ['--import', 'tsx', `scripts/${check}.ts`]
    const { status, stdout, stderr } = spawnSync(process.execPath, script, { encoding: 'utf8' })
    expect(status, `${stdout}${stderr}`).toBe(0)
  }
}

/** Said by each file of tests once. Where its tests go on from one another, everybody stays until the last. */
export function leavesAllInOrder({ stay = false } = {}): void {
  if (stay) test.afterAll(goHome)
  else test.afterEach(goHome)
  test.afterAll(everythingStands)
}
const homeOf = (who: Person) => (FIELD.has(who) ? '/field' : '/')
/** Somebody at their screen, where their day begins or at another page. */
export async function sitDown(browser: Browser, who: Person, at = homeOf(who)): Promise<Page> {
  const context = await browser.newContext({
    ...(FIELD.has(who) ? { viewport: PHONE, hasTouch: true } : {}),
    locale: 'en-US',
    timezoneId: 'America/New_York',
    reducedMotion: 'reduce',
  })
  seated.push(context)
  await signIn(context, who)
  const page = await context.newPage()
  const heard: string[] = []
  noise.set(page, heard)
  page.on('console', (m) => m.type() === 'error' && heard.push(`${m.text()} ${m.location().url}`))
  page.on('pageerror', (e) => heard.push(e.message))
  await page.goto(at)
  await expect(
    FIELD.has(who)
      ? page.getByRole('heading', { name: /day$/ })
      : page.getByRole('navigation', { name: 'The run' }),
  ).toBeVisible()
  return page
}
/** Finds anything by words. A key belongs to what stands over the page: first whatever does is gone. */
export async function findAnything(page: Page, words: string) {
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'What to find' }).fill(words)
}
/** A call of somebody who is known: begun with its key, found by words, chosen. */
export async function callOf(page: Page, words: string, name: string) {
  await page.keyboard.press('n')
  await page.getByLabel('Who is calling').fill(words)
  await expect(page.getByRole('option').first()).toContainText(name)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Someone else' })).toBeVisible()
}
/** Errors that a test did not provoke. Refused requests are written by the browser itself; only those that are expected may be there. */
export const quiet = (page: Page, allowed: RegExp = /^$/) =>
  expect(noise.get(page)!.filter((t) => !allowed.test(t))).toEqual([])
export { setClock } from '../clock'
/** The field of a list that is labelled as its field is. */
const comboIn = (labelled: Locator) => labelled.and(labelled.page().getByRole('combobox'))
/** Takes one of a list, as somebody at the keyboard does; a long list is searched first. */
export async function chooseFrom(labelled: Locator, name: string) {
  const field = comboIn(labelled)
  await field.focus()
  await field.press('Enter')
  if (await field.isEditable()) await field.fill(name)
  // Only its own list: the list of the field before may still be closing.
  const list = field.page().locator(`[id="${await field.getAttribute('aria-controls')}"]`)
  await list.getByRole('option', { name, exact: true }).click({ timeout: 20_000 })
  await expect(chosenIn(field)).toHaveText(name)
}
/** What a field to choose from shows. */
export const chosenIn = (labelled: Locator) =>
  comboIn(labelled).locator('xpath=ancestor::*[contains(@class, "el-select__wrapper")]')
/** Types a day or a time, and is done with it. */
export async function enter(field: Locator, typed: string) {
  await field.fill(typed)
  await field.press('Enter')
}
/** Where something stands once it is drawn; a screen that is being drawn anew has no box for a moment. */
export async function boxOf(
  what: Locator,
): Promise<{ x: number; y: number; width: number; height: number }> {
  let box: Awaited<ReturnType<Locator['boundingBox']>> = null
  await expect
    .poll(async () => (box = await what.boundingBox()), `the box of ${what}`)
    .not.toBeNull()
  return box!
}
/** The money in a text such as "$1,234.50". */
export const moneyIn = (text: string | null): number =>
  Number(/-?[\d,]+\.\d\d/.exec(text ?? '')![0].replaceAll(',', ''))
export const stop = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'The run' }).getByRole('link', { name })
